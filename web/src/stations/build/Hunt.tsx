import { useState } from "react";
import { client, take } from "../../api/client";
import { useShown } from "../../app/reckoner";
import { Button } from "../../design/Button";
import { readingOf } from "./curve";
import type { Build, Post, Probe, Unit } from "./useBuild";

const MANNERS = ["dead", "always", "together", "off"] as const;

type Props = {
	unit: Unit;
	build: Build;
	/** The unit, and where its bench unit is. */
	params: { path: { unit_id: number }; query: { at?: string } };
	/** Whether a bench unit answers, so that nothing has to be typed in. */
	asks: boolean;
	post: Post;
	busy: boolean;
};

/** The fault finder: what is seen first, which test tells most next, and how likely each cause is. */
export function Hunt({ unit, build, params, asks, post, busy }: Props) {
	const { show } = useShown();
	const hunt = unit.hunt;
	const test = (probe: Probe, reading: number | null) =>
		post(() => take(client.POST("/api/units/{unit_id}/test", { params, body: { probe, reading } })));
	return (
		<section aria-label="Fault finder" className="mt-4">
			<h3 className="border-b border-ink pb-1 font-semibold">Fault finder</h3>
			<Seen build={build} unit={unit} params={params} asks={asks} post={post} />
			{hunt && (
				<>
					{!hunt.sure && hunt.best.length > 0 && (
						<div className="mt-3" data-testid="next-tests">
							<p className="text-[12px] text-ink-2">
								Read next, the first tells most for its trouble. One thing at a time.
							</p>
							{hunt.best.map((probe, index) => (
								<TestRow key={probe.words} probe={probe} main={index === 0} asks={asks} busy={busy} test={test} />
							))}
						</div>
					)}
					<table className="mt-3 w-full" data-testid="causes" data-sure={hunt.sure}>
						<tbody>
							{hunt.causes
								.filter((c) => c.share > 0.004)
								.map((cause, index) => (
									<tr
										key={cause.name}
										className={`border-b border-rule align-top ${hunt.sure && index === 0 ? "font-medium" : ""}`}
									>
										<td className="w-[90px] py-1 pr-2">
											<span className="block h-[8px] border border-line">
												<span className="block h-full bg-copper" style={{ width: `${100 * cause.share}%` }} />
											</span>
											<span className="figure text-[12px] text-ink-2">{(100 * cause.share).toFixed(0)} %</span>
										</td>
										<td className="py-1">
											<button
												type="button"
												className="text-left hover:underline"
												onClick={() => show({ rule: "unit", about: cause.refs.map((ref) => `part:${ref}`) } as never)}
											>
												{cause.name}
											</button>
											<span className="block text-[12px] font-normal text-ink-2">
												{cause.words.slice(0, 2).join("; ")}
											</span>
										</td>
									</tr>
								))}
						</tbody>
					</table>
					<p className="mt-1 text-[12px] text-ink-2">
						{hunt.sure
							? `Found after ${hunt.tests} ${hunt.tests === 1 ? "test" : "tests"}. Mend this one thing, then read it again.`
							: `${hunt.tests} ${hunt.tests === 1 ? "test" : "tests"} so far. A cell or card of another brand is swapped first where the ledger names a substitute.`}
					</p>
				</>
			)}
		</section>
	);
}

function TestRow({
	probe,
	main,
	asks,
	busy,
	test,
}: {
	probe: Probe;
	main: boolean;
	asks: boolean;
	busy: boolean;
	test: (probe: Probe, reading: number | null) => void;
}) {
	const [text, setText] = useState("");
	const reading = readingOf(text);
	const looks = probe.sort === "look";
	return (
		<div
			className={`flex flex-wrap items-center gap-2 border-b border-rule py-1.5 ${main ? "font-medium" : ""}`}
			data-probe={probe.sort}
		>
			<span className="min-w-[220px] flex-1">{probe.words}</span>
			{asks ? (
				<Button weight={main ? "main" : "plain"} disabled={busy} onClick={() => test(probe, null)} data-testid="read">
					Read it
				</Button>
			) : looks ? (
				<>
					<Button disabled={busy} onClick={() => test(probe, 1)}>
						It is wrong
					</Button>
					<Button disabled={busy} onClick={() => test(probe, 0)}>
						It is good
					</Button>
				</>
			) : (
				<form
					className="flex items-center gap-1"
					onSubmit={(event) => {
						event.preventDefault();
						if (reading != null) test(probe, reading);
					}}
				>
					<input
						aria-label={`Reading: ${probe.words}`}
						placeholder="4k7, open"
						className="figure w-[84px] border border-line bg-card px-1 py-0.5 text-right"
						value={text}
						onChange={(event) => setText(event.target.value)}
					/>
					<span className="text-ink-2">{probe.unit}</span>
					<Button type="submit" disabled={reading == null || busy}>
						Keep
					</Button>
				</form>
			)}
		</div>
	);
}

function Seen({ build, unit, params, asks, post }: Omit<Props, "busy">) {
	const [dead, setDead] = useState(false);
	const [hot, setHot] = useState(false);
	const [broken, setBroken] = useState<string[]>([]);
	const [manner, setManner] = useState<(typeof MANNERS)[number] | "">("");
	const say = (observe: boolean) =>
		post(() =>
			take(client.POST("/api/units/{unit_id}/symptom", { params, body: { observe, dead, hot, broken, manner } })),
		);
	return (
		<div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 text-[12px]">
			<span className="text-ink-2">What is seen first:</span>
			<label className="flex items-center gap-1">
				<input type="checkbox" checked={dead} onChange={(event) => setDead(event.target.checked)} /> nothing works
			</label>
			<label className="flex items-center gap-1">
				<input type="checkbox" checked={hot} onChange={(event) => setHot(event.target.checked)} /> it draws far too much
			</label>
			<label className="flex items-center gap-1">
				not working
				<select
					aria-label="What does not work"
					className="max-w-[170px] border border-line bg-card px-1 py-0.5"
					value=""
					onChange={(event) => event.target.value && setBroken([...new Set([...broken, event.target.value])])}
				>
					<option value="">choose</option>
					{build.functions.map((name) => (
						<option key={name} value={name}>
							{name}
						</option>
					))}
				</select>
			</label>
			{broken.map((name) => (
				<button
					key={name}
					type="button"
					className="border border-line bg-card px-1.5"
					title="Take it out"
					onClick={() => setBroken(broken.filter((b) => b !== name))}
				>
					{name} ×
				</button>
			))}
			{broken.length > 0 && (
				<select
					aria-label="In which manner"
					className="border border-line bg-card px-1 py-0.5"
					value={manner}
					onChange={(event) => setManner(event.target.value as typeof manner)}
				>
					<option value="">in which manner</option>
					<option value="dead">does nothing</option>
					<option value="always">always on</option>
					<option value="together">together with another</option>
					<option value="off">off its place</option>
				</select>
			)}
			<Button onClick={() => say(false)} data-testid="hunt">
				Hunt for it
			</Button>
			{asks && (
				<Button weight="main" onClick={() => say(true)} data-testid="observe">
					{unit.simulated ? "Look at the simulated unit" : "Ask the bench unit"}
				</Button>
			)}
		</div>
	);
}
