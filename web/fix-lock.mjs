// Run after every `npm install`: adds stubs for optional packages of other platforms that the registry here does not serve
// (npm ci refuses a lock file without them), and takes addresses out of the lock file.
import { readFileSync, writeFileSync } from "node:fs";

for (const file of ["package-lock.json", "apitypes/package-lock.json"]) mend(new URL(file, import.meta.url));

function mend(path) {
const lock = JSON.parse(readFileSync(path, "utf8"));
for (const [where, entry] of Object.entries(lock.packages)) {
	delete entry.resolved;
	delete entry.funding;
	for (const [name, version] of Object.entries(entry.optionalDependencies ?? {})) {
		const nested = `${where}/node_modules/${name}`;
		const hoisted = `node_modules/${name}`;
		if (lock.packages[nested] || lock.packages[hoisted]) continue;
		const system = name.match(/-(android|darwin|win32|freebsd|openharmony|linux|wasm32)\b/)?.[1] ?? "none";
		lock.packages[hoisted] = { version, optional: true, os: [system === "linux" ? "unserved-linux" : system === "wasm32" ? "unserved-wasm" : system] };
	}
}
lock.packages = Object.fromEntries(Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : 1)));
writeFileSync(path, `${JSON.stringify(lock, null, 2)}\n`);
}
