import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type HtmlTagDescriptor, type Plugin } from "vite";

/** Names the code of every view in the page's head, so that it comes while the first script runs. */
const early: Plugin = {
  name: "early",
  transformIndexHtml: {
    order: "post",
    handler(_, { bundle = {} }): HtmlTagDescriptor[] {
      const app = Object.values(bundle).find((one) => one.type === "chunk" && one.name === "app");
      if (app?.type !== "chunk") return [];
      const tag = (rel: string, file: string): HtmlTagDescriptor => ({
        tag: "link",
        attrs: { rel, crossorigin: true, href: `/${file}` },
      });
      return [
        ...[app.fileName, ...app.imports].map((file) => tag("modulepreload", file)),
        ...[...(app.viteMetadata?.importedCss ?? [])].map((file) => tag("stylesheet", file)),
      ];
    },
  },
};

export default defineConfig({
  plugins: [react(), tailwindcss(), early],
  build: {
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1000,
    rolldownOptions: {
      output: {
        // What is asked first waits for nothing of what shows it.
        codeSplitting: {
          groups: [
            { name: "ask", priority: 1, test: /src[\\/]scenario[\\/]askAhead|query-core/ },
            {
              name: "react",
              test: /node_modules[\\/](react|react-dom|react-router|scheduler)[\\/]/,
            },
          ],
        },
      },
    },
  },
  // The glossary of the documents is the interface's.
  server: { fs: { allow: [".", "../docs"] }, proxy: { "/api": "http://127.0.0.1:7420" } },
});
