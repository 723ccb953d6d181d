/** What is under the pointer. */
export function ReckonerStrip({ text }: { text: string }) {
	return (
		<footer className="figure flex h-[28px] shrink-0 items-center border-t border-rule bg-card px-4 text-[12px]">
			<span className="min-w-0 flex-1 truncate" data-testid="reckoner">
				{text || "Point at something to read it here."}
			</span>
		</footer>
	);
}
