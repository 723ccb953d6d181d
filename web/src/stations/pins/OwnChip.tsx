import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { client, take } from "../../api/client";
import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";

const EXAMPLE =
	"pad,port,can\n1,GP0,input output i2c0.sda\n2,GP1,input output i2c0.scl\n3,GP26,input adc0.in0\n4,,ground\n5,RUN,reset";

/** A chip or module of one's own, from a table of its pads. */
export function OwnChip({ close }: { close: () => void }) {
	const { edit, head } = useDesign();
	const shelf = useQuery({
		queryKey: ["project", head.project, "shelf", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/shelf", { params: { path: { project_id: head.project } } })),
	});
	const packages = (shelf.data?.taken ?? []).filter((row) => row.part.kind === "chip package");
	const [drawn, setDrawn] = useState("");
	const [name, setName] = useState("my module");
	const [text, setText] = useState(EXAMPLE);
	const [module, setModule] = useState(true);
	const read = async (event: FormEvent) => {
		event.preventDefault();
		if (await edit({ kind: "use-pin-table", name, text, module, package: drawn })) close();
	};
	return (
		<form
			onSubmit={(event) => void read(event)}
			className="border-b border-rule bg-card px-3 py-2"
			data-testid="own-chip"
		>
			<p className="text-[12px] text-ink-2">
				Columns pad, port, can. Abilities are parted by spaces: input, output, supply, gives, ground, reset, boot, wake,
				5v, or a function such as adc.in0, i2c1.scl, tim2.ch1@AF1. JSON works as well. Pin locks are dropped.
			</p>
			<div className="mt-1 flex gap-3">
				<textarea
					aria-label="Pin table"
					className="figure h-[110px] flex-1 border border-line bg-paper px-2 py-1 text-[12px]"
					value={text}
					spellCheck={false}
					onChange={(e) => setText(e.target.value)}
				/>
				<div className="flex w-[200px] flex-col gap-2">
					<input
						aria-label="Name of the chip"
						className="border border-line bg-paper px-2 py-0.5"
						value={name}
						maxLength={40}
						onChange={(e) => setName(e.target.value)}
					/>
					<label className="flex items-center gap-2 text-[12px]">
						<input
							type="checkbox"
							className="accent-patina"
							checked={module}
							onChange={(e) => setModule(e.target.checked)}
						/>
						a ready module with two rows of pads
					</label>
					<label className="text-[12px]">
						<span className="text-ink-2">its land pattern</span>
						<select
							aria-label="Its land pattern"
							className="mt-0.5 block w-full border border-line bg-paper px-1 py-0.5"
							value={drawn}
							onChange={(e) => setDrawn(e.target.value)}
						>
							<option value="">none: plan its pins only</option>
							{packages.map((row) => (
								<option key={row.part.id} value={row.part.id}>
									{row.part.description || row.part.id}
								</option>
							))}
						</select>
					</label>
					{packages.length === 0 && (
						<p className="text-[12px] text-ink-2">
							To build it, draw a{" "}
							<Link className="text-patina underline" to="/shelf?kind=chip+package">
								chip package on the shelf
							</Link>{" "}
							and take it at Parts.
						</p>
					)}
					<Button type="submit">Plan for it</Button>
				</div>
			</div>
		</form>
	);
}
