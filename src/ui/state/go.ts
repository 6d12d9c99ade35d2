/** To another place of the open project: the page knows the way, and nothing is asked of the server. */
export const goTo = (path: string) => window.history.pushState(null, "", path);
