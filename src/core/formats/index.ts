/** Open formats: CSV, SVG, Markdown, PDF, ZIP, and the bundle that `plan` writes. */
export * from "./csv";
export * from "./markdown";
export * from "./zip";
export * from "./plan";
export { cautions } from "../checks/cautions";
