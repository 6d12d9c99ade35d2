"use client";
import { Moon, Sun } from "lucide-react";
import { useEffect, useState } from "react";
import { Tip } from "@/ui/shared/tip";

const KEY = "lattice-theme";

/** Light paper or evening bench; follows the system until the person chooses. */
export function ThemeButton() {
  const [theme, setTheme] = useState<"light" | "dark" | null>(null);
  useEffect(() => {
    const stored = localStorage.getItem(KEY);
    const dark = stored ? stored === "dark" : matchMedia("(prefers-color-scheme: dark)").matches;
    if (stored) document.documentElement.dataset.theme = stored;
    setTheme(dark ? "dark" : "light");
  }, []);
  const turn = () => {
    const next = theme === "dark" ? "light" : "dark";
    localStorage.setItem(KEY, next);
    document.documentElement.dataset.theme = next;
    setTheme(next);
  };
  const says = theme === "dark" ? "Light paper" : "Dark, for the evening bench";
  return (
    <Tip says={says}>
      <button className="btn !px-2" onClick={turn} aria-label={says}>
        {theme === "dark" ? <Sun size={16} aria-hidden /> : <Moon size={16} aria-hidden />}
      </button>
    </Tip>
  );
}
