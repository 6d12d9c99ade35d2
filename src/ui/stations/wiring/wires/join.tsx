"use client";
import { useEffect, useRef, useState } from "react";
import type { WireAsk } from "@/core/wires";
import { PointField } from "./point-field";
import { Consequence } from "./told";
import { useAct } from "./use-told";

/** Joins two points by a wire; the consequence is told before it is made. */
export function Join({ start = "" }: { start?: string }) {
  const [from, setFrom] = useState(start);
  const [to, setTo] = useState("");
  const form = useRef<HTMLFormElement | null>(null);
  useEffect(() => setFrom(start), [start]);
  const ask: WireAsk | null = from.trim() && to.trim() ? { do: "join", from, to } : null;
  const { told, go: make } = useAct(
    ask,
    (did) => `Joined ${did}.`,
    () => {
      setFrom("");
      setTo("");
      form.current?.querySelector("input")?.focus();
    },
  );
  return (
    <section aria-label="Join two points" className="mt-3">
      <h2 className="text-lg">Join two points</h2>
      <form
        ref={form}
        className="flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          make();
        }}
      >
        <PointField
          label="from"
          value={from}
          set={setFrom}
          done={() => form.current?.querySelectorAll("input")[1]?.focus()}
        />
        <PointField label="to" value={to} set={setTo} done={make} />
        <button className="btn-main" disabled={!told?.ok}>
          Join
        </button>
      </form>
      <Consequence told={told} />
    </section>
  );
}
