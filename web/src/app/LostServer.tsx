import { useQuery } from "@tanstack/react-query";
import { Sign } from "../design/Sign";

/** A bar over the page while the server does not answer; it goes by itself when the server is back. */
export function LostServer() {
	const health = useQuery({
		queryKey: ["health"],
		queryFn: async () => {
			const answer = await fetch("/api/health", { headers: { "X-Loquet": "page" } });
			if (!answer.ok) throw new Error("the database does not answer");
			return true;
		},
		refetchInterval: (query) => (query.state.status === "error" ? 1_500 : 5_000),
		staleTime: 0,
		networkMode: "always",
	});
	return (
		<div
			role="alert"
			className={
				health.isError
					? "fixed inset-x-0 top-0 z-50 flex items-center justify-center gap-3 border-b-2 border-stop bg-card px-4 py-2.5"
					: "sr-only"
			}
		>
			{health.isError && (
				<>
					<Sign kind="stop" />
					<span data-testid="lost-server">
						<span className="font-semibold">Loquet does not answer.</span> What was answered is kept. Start it again
						with <code className="figure">./loquet start</code>; this page goes on by itself.
					</span>
				</>
			)}
		</div>
	);
}
