import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { Frame } from "./app/Frame";
import { LostServer } from "./app/LostServer";
import { Broken, Nowhere } from "./app/Nowhere";
import "./design/tokens.css";
import { ShelfPage } from "./stations/shelf/ShelfPage";
import { Workshop } from "./stations/workshop/Workshop";

const queries = new QueryClient({
	// The server is on this machine: what the browser says of the network outside does not matter.
	defaultOptions: { queries: { retry: false, refetchOnWindowFocus: true, staleTime: 5_000, networkMode: "always" } },
});
const router = createBrowserRouter(
	[
		{ path: "/", element: <Workshop /> },
		{ path: "/shelf", element: <ShelfPage /> },
		{ path: "/project/:project", element: <Frame /> },
		{ path: "*", element: <Nowhere /> },
		{ path: "/project/:project/:station", element: <Frame /> },
	].map((route) => ({ ...route, errorElement: <Broken /> })),
);

const root = document.getElementById("root");
if (!root) throw new Error("the page has no root");
createRoot(root).render(
	<StrictMode>
		<QueryClientProvider client={queries}>
			<RouterProvider router={router} />
			<LostServer />
		</QueryClientProvider>
	</StrictMode>,
);
