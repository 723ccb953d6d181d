import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import type { useOrder } from "./useOrder";

/** The question before something is ordered that was ordered already. */
export function OnceMore({ order }: { order: ReturnType<typeof useOrder> }) {
	const { asked, place, forget } = order;
	if (!asked) return null;
	return (
		<span role="alert" className="flex flex-wrap items-center gap-2 text-[12px] font-normal" data-testid="once-more">
			<span className="flex items-start gap-1.5">
				<span className="mt-[2px]">
					<Sign kind="look" size={12} />
				</span>
				{asked.why}
			</span>
			<Button className="!py-0.5" onClick={() => void place(asked.quantity, true)} data-testid="order-once-more">
				Order {asked.quantity} once more
			</Button>
			<Button weight="quiet" onClick={forget}>
				Leave it
			</Button>
		</span>
	);
}
