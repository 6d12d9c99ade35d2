"use client";

/** Reading aloud, where the browser can: hands stay on the probes. */
export const canSpeak = (): boolean => typeof window !== "undefined" && "speechSynthesis" in window;

/** Symbols as words; references letter by letter. */
const spoken = (text: string) =>
  text
    .replace(/Ω/g, " ohms")
    .replace(/(\d) ?V\b/g, "$1 volts")
    .replace(/(\d) ?mA\b/g, "$1 milliamperes")
    .replace(/\bGND\b/g, "ground")
    .replace(/\b([A-Z]{1,4})(\d+)\.(\w+)/g, "$1 $2, pin $3");

export function speak(text: string): void {
  if (!canSpeak()) return;
  window.speechSynthesis.cancel();
  const u = new SpeechSynthesisUtterance(spoken(text));
  u.lang = "en";
  window.speechSynthesis.speak(u);
}
