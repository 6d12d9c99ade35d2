/**
 * How the page and its worker talk: projects by number, views by slice and by difference. What the page needs; the worker's own
 * end is `./sender`, which brings the whole computation along.
 */
export * from "./messages";
export { makeReceiver, Missed } from "./receiver";
