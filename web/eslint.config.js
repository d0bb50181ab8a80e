import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import { globalIgnores } from "eslint/config";
import ts from "typescript-eslint";

export default [
  globalIgnores(["dist", "src/api/schema.d.ts"]),
  js.configs.recommended,
  ...ts.configs.recommended,
  hooks.configs.flat.recommended,
];
