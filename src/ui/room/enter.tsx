"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { readCode } from "@/core/room/codes";
import { Label } from "@/ui/shared/label";

/** Where a bench's code is typed. */
export function Enter() {
  const router = useRouter();
  const [text, setText] = useState("");
  const code = readCode(text);
  return (
    <main className="mx-auto max-w-sm px-4 py-16">
      <h1 className="text-3xl">Your bench</h1>
      <form
        className="mt-4"
        onSubmit={(e) => {
          e.preventDefault();
          if (code) router.push(`/bench/${code}`);
        }}
      >
        <Label className="block">
          <span className="block text-soft">The five letters on your card</span>
          <input
            className="num w-full text-3xl! tracking-widest uppercase"
            autoFocus
            autoComplete="off"
            autoCapitalize="characters"
            spellCheck={false}
            maxLength={9}
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
        </Label>
        <button className="btn-main mt-3" disabled={!code}>
          Go to the bench
        </button>
      </form>
    </main>
  );
}
