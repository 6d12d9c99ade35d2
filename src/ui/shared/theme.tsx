"use client";
import { Moon, Sun } from "lucide-react";
import { useEffect, useState } from "react";
import { Tip } from "@/ui/shared/tip";

const KEY = "lattice-theme";
const TURNED = "lattice-theme-turned";

const isDark = () => {
  const { theme } = document.documentElement.dataset;
  return theme ? theme === "dark" : matchMedia("(prefers-color-scheme: dark)").matches;
};

/** Turns light paper to the evening bench or back, and keeps the choice. */
export function turnTheme(): "light" | "dark" {
  const next = isDark() ? "light" : "dark";
  localStorage.setItem(KEY, next);
  document.documentElement.dataset.theme = next;
  window.dispatchEvent(new Event(TURNED));
  return next;
}

/** Light paper or evening bench; follows the system until the person chooses. */
export function ThemeButton() {
  const [theme, setTheme] = useState<"light" | "dark" | null>(null);
  useEffect(() => {
    const stored = localStorage.getItem(KEY);
    if (stored) document.documentElement.dataset.theme = stored;
    const show = () => setTheme(isDark() ? "dark" : "light");
    show();
    window.addEventListener(TURNED, show);
    return () => window.removeEventListener(TURNED, show);
  }, []);
  const says = theme === "dark" ? "Light paper" : "Dark, for the evening bench";
  return (
    <Tip says={says}>
      <button className="btn !px-2" onClick={turnTheme} aria-label={says}>
        {theme === "dark" ? <Sun size={16} aria-hidden /> : <Moon size={16} aria-hidden />}
      </button>
    </Tip>
  );
}
