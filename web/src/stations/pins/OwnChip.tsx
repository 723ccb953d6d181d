import { type FormEvent, useState } from "react";
import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";

const EXAMPLE =
	"pad,port,can\n1,GP0,input output i2c0.sda\n2,GP1,input output i2c0.scl\n3,GP26,input adc0.in0\n4,,ground\n5,RUN,reset";

/** A chip or module of one's own, from a table of its pads. */
export function OwnChip({ close }: { close: () => void }) {
	const { edit } = useDesign();
	const [name, setName] = useState("my module");
	const [text, setText] = useState(EXAMPLE);
	const [module, setModule] = useState(true);
	const read = async (event: FormEvent) => {
		event.preventDefault();
		if (await edit({ kind: "use-pin-table", name, text, module })) close();
	};
	return (
		<form
			onSubmit={(event) => void read(event)}
			className="border-b border-rule bg-card px-3 py-2"
			data-testid="own-chip"
		>
			<p className="text-[12px] text-ink-2">
				Columns pad, port, can. Abilities are parted by spaces: input, output, supply, ground, reset, boot, wake, 5v, or
				a function such as adc.in0, i2c1.scl, tim2.ch1@AF1. JSON works as well. Pin locks are dropped.
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
					<Button type="submit">Plan for it</Button>
				</div>
			</div>
		</form>
	);
}
