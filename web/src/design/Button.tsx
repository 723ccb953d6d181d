import type { ButtonHTMLAttributes, Ref } from "react";

type Weight = "main" | "plain" | "quiet";

const LOOKS: Record<Weight, string> = {
	main: "bg-copper text-white border-copper hover:bg-[#96491b]",
	plain: "bg-card text-ink border-line hover:border-ink-2",
	quiet: "bg-transparent text-patina border-transparent hover:underline px-1",
};

export function Button({
	weight = "plain",
	className = "",
	...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { weight?: Weight; ref?: Ref<HTMLButtonElement> }) {
	return (
		<button
			type="button"
			className={`inline-flex items-center gap-1.5 rounded-[3px] border px-2.5 py-1 font-medium whitespace-nowrap disabled:opacity-45 ${LOOKS[weight]} ${className}`}
			{...rest}
		/>
	);
}
