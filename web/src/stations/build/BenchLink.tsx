import { useState } from "react";
import { client, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { useAsking } from "../../document/useAsking";

/** Where a bench unit is, and what it calls itself; no name before it has answered. */
export type Link = { at: string; name: string };

/** A bench unit of one's own on a serial port or a socket of this machine: asked for its name before it is used. */
export function BenchLink({ link, setLink }: { link: Link; setLink: (link: Link) => void }) {
	const [ports, setPorts] = useState<string[]>([]);
	const { ask, problem, busy } = useAsking(["bench"]);
	const look = async () => {
		const found = await ask(() => take(client.POST("/api/bench", { params: { query: { at: link.at.trim() } } })));
		setPorts(found?.ports ?? []);
		setLink({ at: link.at.trim(), name: found?.name ?? "" });
	};
	return (
		<form
			className="mt-1 flex flex-wrap items-center gap-2 text-[12px]"
			onSubmit={(event) => {
				event.preventDefault();
				void look();
			}}
		>
			<label className="flex items-center gap-2 text-ink-2">
				bench unit at
				<input
					aria-label="Address of the bench unit"
					placeholder="/dev/ttyACM0 or 127.0.0.1:4123"
					className="figure w-[240px] border border-line bg-card px-1 py-0.5 text-ink"
					value={link.at}
					onChange={(event) => setLink({ at: event.target.value, name: "" })}
				/>
			</label>
			<Button type="submit" disabled={busy} data-testid="find-bench">
				{link.at.trim() ? "Ask for its name" : "Look for ports"}
			</Button>
			{link.name && (
				<span className="flex items-center gap-1.5" data-testid="bench-name">
					<Sign kind="clear" size={12} /> {link.name}
				</span>
			)}
			{!link.name && ports.length > 0 && <span className="text-ink-2">ports: {ports.join(", ")}</span>}
			{problem && <span className="text-stop">{problem}</span>}
			{!link.name && <span className="w-full text-ink-2">Without one, type in what your own meter shows.</span>}
		</form>
	);
}
