"use client";
import { useRef, useState, type ReactNode } from "react";
import { MenuOver, type MenuItem } from "@/ui/shared/menu";
import { goTo } from "@/ui/state/go";
import { light } from "@/ui/state/lit";
import { useProject } from "@/ui/state/project";
import { askRemark } from "@/ui/state/remark";
import { core } from "@/ui/state/core";
import { showCard } from "./place-card";

const GO = [
  { station: "pins", name: "At Pins", says: "what else it could use" },
  { station: "power", name: "At Power and levels", says: "what it takes and gives" },
  { station: "wiring", name: "In the run sheet", says: "its wires, in their order" },
] as const;

/** On any pin, wire, rail or part, wherever it is named: what it is, and where it is looked at. */
export function PlaceMenu({ children }: { children: ReactNode }) {
  const { id, project } = useProject();
  const [place, setPlace] = useState("");
  const at = useRef<HTMLElement | null>(null);
  const items: MenuItem[] = [
    {
      name: "What it is",
      says: "and what would happen without it",
      // After the menu is gone, which closes what is open over the page.
      go: () => setTimeout(() => at.current && showCard(at.current), 50),
    },
    {
      name: "Remark on it",
      says: "for whoever made the plan",
      go: () => void core().remarkAt(project, place).then(askRemark),
    },
    { name: "Light it", says: "wherever it is drawn", go: () => light([place]) },
    ...GO.map((g) => ({
      name: g.name,
      says: g.says,
      go: () => {
        light([place]);
        goTo(`/p/${id}/${g.station}`);
      },
    })),
  ];
  return (
    <MenuOver
      title={place}
      items={items}
      ask={(el) => {
        const found = el.closest<HTMLElement>("[data-place]");
        at.current = found;
        setPlace(found?.dataset.place ?? "");
        return found !== null;
      }}
    >
      {children}
    </MenuOver>
  );
}
