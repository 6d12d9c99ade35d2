"use client";
import { useState } from "react";
import { Label } from "@/ui/shared/label";
import { Problems } from "@/ui/shared/open-file";
import { http } from "@/ui/state/http";

/** Asks for the passphrase of a computer that several share. */
export function Unlock({ to }: { to: string }) {
  const [text, setText] = useState("");
  const [wrong, setWrong] = useState("");
  const send = async () => {
    const r = await http("POST", "/api/unlock", { passphrase: text });
    if (r.status === 200) return window.location.assign(to);
    setText("");
    setWrong(r.body.message ?? "That did not work.");
  };
  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <h1 className="text-3xl">Young Lattice</h1>
      <p className="text-soft">This computer is shared. Give the passphrase that the app was started with.</p>
      <form
        className="mt-6 flex items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          void send();
        }}
      >
        <Label className="grow">
          <span className="block text-soft">Passphrase</span>
          <input
            className="w-full"
            type="password"
            autoComplete="current-password"
            autoFocus
            value={text}
            maxLength={200}
            onChange={(e) => setText(e.target.value)}
          />
        </Label>
        <button className="btn-main">Open</button>
      </form>
      <Problems lines={wrong ? [wrong] : []} />
    </main>
  );
}
