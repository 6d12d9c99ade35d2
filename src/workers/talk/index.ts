/** How the page and its worker talk: projects by number, views by slice and by difference. */
export * from "./messages";
export { makeSender } from "./sender";
export { makeReceiver, Missed } from "./receiver";
