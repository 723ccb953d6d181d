import { useEffect } from "react";
import { useRouteError } from "react-router";

/** An address that leads nowhere. */
export function Nowhere() {
	return (
		<Plain
			title="There is no such page."
			text="The address may be mistyped, or the project may be gone from this workshop."
		/>
	);
}

/** A page that could not be drawn; the design is on the server, and nothing of it is lost. */
export function Broken() {
	const error = useRouteError();
	const told = error instanceof Error ? error.message : String(error);
	return (
		<Plain
			title="This page could not be drawn."
			text="Your work is kept. Load the page again; if it happens once more, tell the people who look after Loquet what is written here:"
			told={told}
		/>
	);
}

/** A sentence on an otherwise empty page, with the way back. */
export function Plain({ title, text, told = "" }: { title: string; text: string; told?: string }) {
	useEffect(() => {
		document.title = `${title} Loquet`;
	}, [title]);
	return (
		<main className="mx-auto max-w-[640px] px-8 py-16" data-testid="plain-page">
			<h1 className="text-[28px] leading-tight font-semibold">{title}</h1>
			<p className="mt-3 text-[16px] text-ink-2">{text}</p>
			{told && <pre className="figure mt-3 overflow-x-auto border border-rule bg-card p-3 text-[12px]">{told}</pre>}
			<p className="mt-6">
				<a href="/" className="text-patina underline">
					Back to the workshop
				</a>
			</p>
		</main>
	);
}
