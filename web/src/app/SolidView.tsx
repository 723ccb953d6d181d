import { type ReactNode, useEffect, useRef, useState } from "react";
import * as three from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import { useReckoner } from "./reckoner";

/** Bodies as a solid: turned with the mouse or the arrow keys; what lies under the pointer is named. Bodies carry their name as `part`. */
export function SolidView({
	build,
	label,
	words,
	select,
	children,
}: {
	build: () => three.Group;
	label: string;
	words: (part: string) => string;
	select?: (part: string | null) => void;
	children?: ReactNode;
}) {
	const frame = useRef<HTMLDivElement>(null);
	const reckon = useReckoner();
	const [problem, setProblem] = useState("");
	const say = useRef(reckon);
	say.current = reckon;
	const choose = useRef(select);
	choose.current = select;
	const name = useRef(words);
	name.current = words;
	useEffect(() => {
		const host = frame.current;
		if (!host) return;
		let renderer: three.WebGLRenderer;
		try {
			renderer = new three.WebGLRenderer({ antialias: true });
		} catch {
			setProblem(
				"This browser shows no solid pictures (WebGL is off). The other views show everything that is on the board.",
			);
			return;
		}
		const scene = new three.Scene();
		scene.background = new three.Color("#f7f4ec");
		scene.add(new three.AmbientLight("#ffffff", 1.7));
		const light = new three.DirectionalLight("#ffffff", 1.9);
		scene.add(light);
		const group = build();
		const box = new three.Box3().setFromObject(group);
		const [middle, size] = [box.getCenter(new three.Vector3()), box.getSize(new three.Vector3())];
		scene.add(group);
		// What is tall comes near to the eye: it is looked at from farther away than a flat board.
		const tall = size.z / Math.max(size.x, size.y, 1);
		const reach = (size.length() / 2 / Math.sin((17.5 * Math.PI) / 180)) * (0.8 + 0.9 * tall);
		const camera = new three.PerspectiveCamera(35, 1, 1, reach * 10);
		camera.up.set(0, 0, 1);
		camera.position.set(middle.x, middle.y - reach * 0.72, middle.z + reach * 0.7);
		const controls = new OrbitControls(camera, renderer.domElement);
		controls.target.copy(middle);
		const draw = () => {
			light.position.copy(camera.position);
			renderer.render(scene, camera);
		};
		controls.addEventListener("change", draw);
		renderer.domElement.className = "block h-full w-full outline-none";
		renderer.domElement.tabIndex = 0;
		renderer.domElement.setAttribute("aria-label", `${label} as a solid; arrow keys turn it`);
		host.append(renderer.domElement);
		const fit = () => {
			const { clientWidth: w, clientHeight: h } = host;
			renderer.setSize(w, h, false);
			camera.aspect = w / Math.max(h, 1);
			camera.updateProjectionMatrix();
			draw();
		};
		const watcher = new ResizeObserver(fit);
		watcher.observe(host);
		const under = (event: { clientX: number; clientY: number }): string | null => {
			const at = renderer.domElement.getBoundingClientRect();
			const spot = new three.Vector2(
				((event.clientX - at.left) / at.width) * 2 - 1,
				1 - ((event.clientY - at.top) / at.height) * 2,
			);
			const ray = new three.Raycaster();
			ray.setFromCamera(spot, camera);
			return (
				(ray.intersectObject(group).find((hit) => hit.object.userData.part)?.object.userData.part as string) ?? null
			);
		};
		const move = (event: PointerEvent) => {
			const part = under(event);
			say.current(part ? name.current(part) : "");
		};
		let pressed: PointerEvent | null = null;
		const down = (event: PointerEvent) => {
			pressed = event;
		};
		const up = (event: PointerEvent) => {
			if (pressed && Math.hypot(event.clientX - pressed.clientX, event.clientY - pressed.clientY) < 4)
				choose.current?.(under(event));
		};
		const turn = new three.Vector3();
		const keys = (event: KeyboardEvent) => {
			const way = { ArrowLeft: [-0.15, 0], ArrowRight: [0.15, 0], ArrowUp: [0, -0.15], ArrowDown: [0, 0.15] }[
				event.key
			];
			if (!way) return;
			event.preventDefault();
			turn.copy(camera.position).sub(controls.target);
			const ball = new three.Spherical().setFromVector3(new three.Vector3(turn.x, turn.z, -turn.y));
			ball.theta += way[0] ?? 0;
			ball.phi = Math.min(Math.max(ball.phi + (way[1] ?? 0), 0.05), Math.PI - 0.05);
			const round = new three.Vector3().setFromSpherical(ball);
			camera.position.set(round.x, -round.z, round.y).add(controls.target);
			controls.update();
			draw();
		};
		renderer.domElement.addEventListener("pointermove", move);
		renderer.domElement.addEventListener("pointerdown", down);
		renderer.domElement.addEventListener("pointerup", up);
		renderer.domElement.addEventListener("keydown", keys);
		controls.update();
		return () => {
			watcher.disconnect();
			controls.dispose();
			scene.traverse((piece) => {
				if (piece instanceof three.Mesh || piece instanceof three.LineSegments) piece.geometry.dispose();
			});
			renderer.dispose();
			renderer.domElement.remove();
		};
	}, [build, label]);
	return (
		<div ref={frame} className="relative min-h-0 flex-1 overflow-hidden" data-testid="solid">
			{problem && <p className="p-6 text-ink-2">{problem}</p>}
			{children}
		</div>
	);
}
