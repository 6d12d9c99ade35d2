/** What the page's own policy asks of a style that is put in later: the word that its scripts carry. Empty where nothing is asked. */
export const pageNonce = (): string =>
  typeof document === "undefined" ? "" : (document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce ?? "");

/** Libraries that put styles in by themselves look for it under this name. */
export function tellNonce(): void {
  (globalThis as { __webpack_nonce__?: string }).__webpack_nonce__ = pageNonce();
}
