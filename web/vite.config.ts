import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
	plugins: [react(), tailwindcss()],
	server: { proxy: { "/api": "http://127.0.0.1:8460" } },
	build: { target: "es2023", sourcemap: false },
	// None of the tests changes what another one sees, so all share a thread.
	test: { pool: "threads", isolate: false },
});
