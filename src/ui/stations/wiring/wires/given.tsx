"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { useEffect, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import { toast } from "sonner";
import { z } from "zod";
import type { Consequences, GivenRow } from "@/core/wires";
import { OpenFile } from "@/ui/shared/open-file";
import { saveFile } from "@/ui/shared/save-file";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { Lines } from "./told";
import { Fold } from "@/ui/shared/fold";
import { Select } from "@/ui/shared/select";

/** So much of a file is read, characters. */
const MOST_CHARS = 200_000;

/** The lines that give pins, and for names that could be several needs which one is meant. */
const AskedSchema = z.object({ text: z.string().max(MOST_CHARS), chosen: z.record(z.string(), z.string()) });
type Asked = z.infer<typeof AskedSchema>;
const EMPTY: Asked = { text: "", chosen: {} };

const GOOD = new Set<GivenRow["state"]>(["served", "there already"]);

/** Pins that a program, a plug or a schematic prescribes: pasted or opened, matched with a preview, and kept. */
export function Given() {
  const { project, run } = useProject();
  const { control, register, reset, setValue, handleSubmit } = useForm<Asked>({
    defaultValues: EMPTY,
    resolver: zodResolver(AskedSchema) as never,
  });
  const { text, chosen } = useWatch({ control }) as Asked;
  const [told, setTold] = useState<{ rows: GivenRow[]; brings: Consequences } | null>(null);
  useEffect(() => {
    let gone = false;
    const timer = setTimeout(
      () =>
        text.trim()
          ? void core()
              .tellGiven(project, text, chosen)
              .then((t) => !gone && setTold(t))
          : setTold(null),
      200,
    );
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [project, text, chosen]);
  const served = told?.rows.filter((r) => GOOD.has(r.state)).length ?? 0;
  const take = handleSubmit(async (a) => {
    const s = await run((p) => core().takeGiven(p, a.text, a.chosen));
    if (!s) return;
    toast(`${served} given pins are kept.`);
    reset(EMPTY);
  });
  const save = () =>
    void core()
      .pinMap(project)
      .then((t) => saveFile("pins.txt", t, "text/plain"));
  return (
    <Fold className="mt-4" heading title="Pins that are given">
      <p className="text-sm text-soft">
        A program that can&apos;t be changed, a plug or a schematic: paste or open its lines, such as{" "}
        <code>#define LED_PIN 5</code>, <code>echo = Pin(3)</code> or <code>servo, D9</code>.
      </p>
      <div className="mt-2 flex flex-wrap items-start gap-3">
        <textarea
          aria-label="Lines that give pins"
          className="num h-32 min-w-72 grow"
          spellCheck={false}
          maxLength={MOST_CHARS}
          {...register("text")}
        />
        <div className="flex flex-col gap-2">
          <OpenFile
            says="Open a file"
            label="A program or table whose lines give pins"
            accept=".ino,.h,.hpp,.cpp,.c,.py,.csv,.txt"
            open={async (file) =>
              file && setValue("text", (await file.slice(0, MOST_CHARS).text()).slice(0, MOST_CHARS))
            }
          />
          <button className="btn" onClick={save}>
            Save this plan&apos;s pins for another program
          </button>
        </div>
      </div>
      {told && !told.rows.length && <p className="mt-1 text-stop">No line here gives a name a pin.</p>}
      {told && told.rows.length > 0 && (
        <>
          <table className="plain mt-2" data-testid="given">
            <thead>
              <tr>
                <th>line</th>
                <th>name</th>
                <th>pin</th>
                <th>is for</th>
                <th>what becomes of it</th>
              </tr>
            </thead>
            <tbody>
              {told.rows.map((r) => (
                <tr key={`${r.line} ${r.name}`}>
                  <td className="num">{r.line}</td>
                  <td className="num">{r.name}</td>
                  <td className="num">{r.pin ?? r.token}</td>
                  <td>
                    {r.choices.length || chosen[r.name] ? (
                      <Select
                        label={`What ${r.name} is for`}
                        value={chosen[r.name] ?? ""}
                        options={[
                          { value: "", name: "none of this project" },
                          ...[...new Set([...r.choices, ...(chosen[r.name] ? [chosen[r.name]!] : [])])].map((n) => ({
                            value: n,
                            name: n,
                          })),
                        ]}
                        onChange={(v) => setValue("chosen", { ...chosen, [r.name]: v })}
                      />
                    ) : (
                      <span className="num">{r.need ?? ""}</span>
                    )}
                  </td>
                  <td className={GOOD.has(r.state) ? "" : "text-stop"}>{r.says}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Lines brings={told.brings} nets={false} />
          <button className="btn-main mt-2" disabled={!served} onClick={() => void take()}>
            Keep {served} given pins
          </button>
        </>
      )}
    </Fold>
  );
}
