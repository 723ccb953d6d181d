import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useCallback, useContext, useEffect, useRef, useState } from "react";
import {
	client,
	type DesignHead,
	type Edit,
	type JobCard,
	type JobKind,
	Refusal,
	type Schemas,
	take,
} from "../api/client";
import { EditQueue } from "./editQueue";
import { patiently } from "./patient";

export type Design = {
	head: DesignHead;
	jobs: JobCard[];
	/** Whether something that was done here still waits for its answer. */
	underWay: boolean;
	notice: Notice | null;
	dismiss: () => void;
	edit: (edit: Edit) => Promise<boolean>;
	move: (name: string, x_mm: number, y_mm: number) => Promise<boolean>;
	goBack: (version: number) => Promise<boolean>;
	undo: () => void;
	redo: () => void;
	/** Starts long work and says whether it was done; `about` says which nets of a board, or what is drawn. */
	start: (kind: JobKind, about?: Partial<Omit<Schemas["JobRequest"], "kind">>) => Promise<boolean>;
	stop: (job: number) => void;
	say: (notice: Notice) => void;
};

/** `short`: a job that kept what it made but did not come to its end; `away`: what was done waits for the server. */
export type Notice = {
	kind: "refused" | "done" | "conflict" | "short" | "away";
	sentence: string;
	wayOut: string;
};
const AWAY: Notice = {
	kind: "away",
	sentence: "What you did waits here and is sent as soon as Loquet answers.",
	wayOut: "Keep this page open.",
};

export const DesignContext = createContext<Design | null>(null);

/** The open design; only inside a project. */
export function useDesign(): Design {
	const design = useContext(DesignContext);
	if (!design) throw new Error("useDesign is used outside a project");
	return design;
}

/** The refusal that is on screen, if one is; also outside a project. */
export function useRefused(): Notice | null {
	const notice = useContext(DesignContext)?.notice;
	return notice?.kind === "refused" || notice?.kind === "conflict" ? notice : null;
}

export const headKey = (project: number) => ["project", project, "head"];

/** The design of a project, kept fresh by the event stream; edits carry the version that was seen. */
export function useDesignState(project: number): { design: Design | null; failure: Refusal | null } {
	const queries = useQueryClient();
	const [jobs, setJobs] = useState<JobCard[]>([]);
	const [notice, setNotice] = useState<Notice | null>(null);
	const query = useQuery({
		queryKey: headKey(project),
		queryFn: () => take(client.GET("/api/projects/{project_id}", { params: { path: { project_id: project } } })),
	});
	const head = query.data;

	const refresh = useCallback(() => queries.invalidateQueries({ queryKey: ["project", project] }), [queries, project]);

	useEffect(() => {
		let stream: EventSource | null = null;
		let version = 0;
		const listen = (message: MessageEvent<string>) => {
			const tick = JSON.parse(message.data) as { version: number; jobs: JobCard[] };
			if (version && tick.version !== version) void refresh();
			version = tick.version;
			setJobs(tick.jobs);
		};
		// A browser keeps six connections to a server at the most: a page that nobody sees gives its own back.
		const shut = () => {
			stream?.close();
			stream = null;
		};
		const follow = () => {
			if (document.visibilityState === "hidden") return shut();
			if (stream) return;
			stream = new EventSource(`/api/projects/${project}/events`);
			stream.onmessage = listen;
			stream.onopen = () => setNotice((now) => (now?.kind === "away" ? null : now));
		};
		follow();
		document.addEventListener("visibilitychange", follow);
		window.addEventListener("pagehide", shut);
		return () => {
			document.removeEventListener("visibilitychange", follow);
			window.removeEventListener("pagehide", shut);
			shut();
		};
	}, [project, refresh]);

	/** Waits for a job that was started here, however short it is, and says how it ended. */
	const follow = useCallback(
		async (id: number) => {
			for (;;) {
				const job = await take(client.GET("/api/jobs/{job_id}", { params: { path: { job_id: id } } }));
				if (job.state !== "waiting" && job.state !== "running") {
					await refresh();
					setJobs((now) => now.filter((card) => card.id !== id));
					setNotice({
						kind: job.state === "done" || job.state === "short" ? job.state : "refused",
						sentence: job.message || `The job is ${job.state}.`,
						wayOut: "",
					});
					return job.state === "done";
				}
				await new Promise((done) => setTimeout(done, 250));
			}
		},
		[refresh],
	);

	const put = useCallback(
		async (next: DesignHead) => {
			await queries.cancelQueries({ queryKey: headKey(project) });
			queries.setQueryData(headKey(project), next);
			void queries.invalidateQueries({ queryKey: ["project", project], predicate: (q) => q.queryKey[2] !== "head" });
		},
		[queries, project],
	);

	const failed = useCallback(
		(problem: unknown) => {
			const refusal =
				problem instanceof Refusal ? problem : new Refusal("Something went wrong in this page.", String(problem), 0);
			setNotice({
				kind: refusal.status === 409 ? "conflict" : refusal.status === 0 ? "away" : "refused",
				sentence: refusal.sentence,
				wayOut: refusal.wayOut,
			});
			if (refusal.status === 409) void refresh();
		},
		[refresh],
	);

	const path = { params: { path: { project_id: project } } };
	const send = async (edit: Edit): Promise<boolean> => {
		const version = queries.getQueryData<DesignHead>(headKey(project))?.version ?? 0;
		// The version is the one that was seen: an edit that did arrive, but whose answer was lost, is not done twice.
		const post = () =>
			take(client.POST("/api/projects/{project_id}/edits", { ...path, body: { edit, version }, keepalive: true }));
		try {
			await put(await patiently(post, () => setNotice(AWAY)));
			setNotice(null);
			return true;
		} catch (problem) {
			failed(problem);
			return false;
		}
	};
	const sending = useRef(send);
	sending.current = send;
	const [underWay, setUnderWay] = useState(false);
	const [queue] = useState(() => new EditQueue((edit) => sending.current(edit), setUnderWay));
	const edit = (wanted: Edit) => queue.put(wanted);
	const inTurn = (request: () => Promise<DesignHead>, done: (was: DesignHead | undefined, now: DesignHead) => string) =>
		queue.after(async () => {
			try {
				const was = queries.getQueryData<DesignHead>(headKey(project));
				const now = await request();
				await put(now);
				setNotice({ kind: "done", sentence: done(was, now), wayOut: "" });
				return true;
			} catch (problem) {
				failed(problem);
				return false;
			}
		});
	const step = (way: "/api/projects/{project_id}/undo" | "/api/projects/{project_id}/redo") =>
		inTurn(
			() => take(client.POST(way, path)),
			(was, now) => (way.endsWith("/undo") ? `Undone: ${was?.undo_label}.` : `Done again: ${now.undo_label}.`),
		);
	const goBack = (version: number) =>
		inTurn(
			() => take(client.POST("/api/projects/{project_id}/restore", { ...path, body: { version } })),
			(_, now) => `${now.undo_label}.`,
		);

	const waitsForServer = underWay && notice?.kind === "away";
	useEffect(() => {
		// A value that is being typed goes out before the page does; what the server has not taken asks to stay.
		const leave = (event: BeforeUnloadEvent) => {
			if (document.activeElement instanceof HTMLInputElement) document.activeElement.blur();
			if (waitsForServer) event.preventDefault();
		};
		window.addEventListener("beforeunload", leave);
		return () => window.removeEventListener("beforeunload", leave);
	}, [waitsForServer]);

	if (!head) return { design: null, failure: query.error instanceof Refusal ? query.error : null };
	const design: Design = {
		head,
		jobs,
		underWay,
		notice,
		dismiss: () => setNotice(null),
		say: setNotice,
		edit,
		goBack,
		move: (name, x_mm, y_mm) => edit({ kind: "move-thing", name, x_mm, y_mm }),
		undo: () => void step("/api/projects/{project_id}/undo"),
		redo: () => void step("/api/projects/{project_id}/redo"),
		start: async (kind, about) => {
			setNotice(null);
			await queue.after(() => Promise.resolve(true));
			try {
				const started = await take(
					client.POST("/api/projects/{project_id}/jobs", {
						...path,
						body: { kind, board: "", nets: [], ...about },
					}),
				);
				return await follow(started.job);
			} catch (problem) {
				failed(problem);
				return false;
			}
		},
		stop: (job) =>
			void take(client.POST("/api/jobs/{job_id}/stop", { params: { path: { job_id: job } } })).catch(failed),
	};
	return { design, failure: null };
}
