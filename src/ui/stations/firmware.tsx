"use client";
import { useKept } from "@/ui/state/kept";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import type { FirmwareFile } from "@/core/firmware";
import type { Does } from "@/core/firmware/does";
import type { Room } from "@/core/firmware/memory/room";
import { Download } from "@/ui/shared/download";
import { StationTitle } from "@/ui/shared/title";
import { core } from "@/ui/state/core";
import { afterwards, later } from "@/ui/shared/later";
import { Place } from "@/ui/shared/place";
import { Memory } from "./memory";
import { useAddPart } from "@/ui/state/add-part";
import { useLit } from "@/ui/state/lit";
import { useProject } from "@/ui/state/project";
import { Picks } from "@/ui/shared/picks";
import { Radios } from "@/ui/shared/radios";

const Code = afterwards(() => import("./code").then((m) => m.Code));
const TryIt = later(() => import("./try-it").then((m) => m.TryIt));
const Sleep = later(() => import("./sleep").then((m) => m.Sleep));
const Rules = later(() => import("./rules").then((m) => m.Rules));

const PROGRAMMER = "module/avr-programmer";

/** A bare chip is written through a programmer: its six wires are planned like any others. */
function AskForProgrammer() {
  const add = useAddPart();
  return (
    <p className="mt-3 border-l-4 border-accent pl-3 text-sm">
      A bare chip is written through six wires.{" "}
      <button className="quiet" onClick={() => void add(PROGRAMMER)}>
        Add the programmer
      </button>
      , and they are planned and checked with the others.
    </p>
  );
}

/** Firmware: programs written from the plan, with where each pin constant comes from. */
export function Firmware() {
  const { view, project, light, edit } = useProject();
  const lit = useLit();
  const fitting = view.targets.filter((t) => !t.unfit);
  const [chosen, setChosen] = useKept<string | null>("target", null);
  const target = fitting.find((t) => t.id === chosen) ?? fitting.find((t) => t.id === "micropython") ?? fitting[0];
  const [files, setFiles] = useState<FirmwareFile[]>([]);
  const [path, setPath] = useKept<string | null>("firmware file", null);
  const targetId = target?.id;
  const [parts, setParts] = useState<Does[]>([]);
  const [rooms, setRooms] = useState<Room[]>([]);
  useEffect(() => {
    let gone = false;
    if (targetId)
      void core()
        .files(project, targetId)
        .then((f) => !gone && setFiles(f));
    else setFiles([]);
    if (targetId)
      void core()
        .does(project, targetId)
        .then((d) => !gone && setParts(d));
    else setParts([]);
    if (targetId)
      void core()
        .room(project, targetId)
        .then((r) => !gone && setRooms(r));
    else setRooms([]);
    return () => {
      gone = true;
    };
  }, [project, targetId]);
  const file =
    files.find((f) => f.path === path) ?? files.find((f) => /main\.py|main\.c|starter\.ino/.test(f.path)) ?? files[0];
  /** Own code, as it was written between the marks of the file that is open. */
  const own = (text: string) => {
    if (!targetId || !file) return;
    void core()
      .own(project, targetId, file.path, text)
      .then(({ edits, problems }) => {
        if (problems.length) toast.error(problems.join("; "));
        else if (edits.length) void edit({ type: "batch", edits });
      });
  };
  return (
    <>
      <StationTitle
        name="Firmware"
        says="Pin names come from the plan. Bring-up first: every part proves itself, or you are asked."
      >
        {target && (
          <Download main path={`plan?target=${target.id}`} testId="download-firmware">
            Download {target.name} (ZIP)
          </Download>
        )}
      </StationTitle>
      {!target && !view.withoutProgram.length && (
        <p className="mt-4">No board in this project yet, so there is nothing to program.</p>
      )}
      {view.withoutProgram.length > 0 && (
        <ul className="mt-3 border-l-4 border-risk pl-3" aria-label="Boards without a program">
          {view.withoutProgram.map((b) => (
            <li key={b.ref}>
              <strong>No program for {b.label}:</strong> {b.why}. Its wiring is planned and checked; the program is
              yours to write.{" "}
              <span className="text-soft">Pins that are given by one can be read in at Wiring, Wires.</span>
            </li>
          ))}
        </ul>
      )}
      {target && (
        <div className="mt-3 grid gap-x-6 gap-y-3 xl:grid-cols-[270px_1fr]">
          <div>
            <h2 className="font-bold" id="targets">
              Target
            </h2>
            <Radios
              labelledBy="targets"
              value={target.id}
              options={view.targets.map((t) => ({
                value: t.id,
                disabled: t.unfit !== null,
                name: (
                  <>
                    {t.name} <span className="block text-sm leading-tight text-soft">{t.unfit ?? t.says}</span>
                  </>
                ),
              }))}
              onChange={(id) => (setChosen(id), setPath(null))}
            />
            {target.id === "avr-c" && !project.parts.some((p) => p.part === PROGRAMMER) && <AskForProgrammer />}
            {rooms.length > 0 && <Memory rooms={rooms} named={view.hosts.length > 1} />}
            <h2 className="mt-3 font-bold">Files</h2>
            <Picks
              label="Files"
              className="num"
              value={file?.path}
              picks={files.map((f) => ({ value: f.path, name: f.path }))}
              pick={setPath}
            />
            <h2 className="mt-3 font-bold">What it does with the parts</h2>
            <ul className="text-sm" data-testid="does">
              {parts.map((d) => (
                <li key={`${d.host} ${d.ref}`} className="mt-1">
                  <Place of={d.ref} className="font-bold">
                    {d.label}
                  </Place>
                  <span className={`block leading-tight ${d.worked ? "text-soft" : "text-risk"}`}>
                    {d.starter}
                    {d.proof && `; in bring-up ${d.proof}`}
                    {!d.proof.endsWith("?") && "."}
                  </span>
                </li>
              ))}
            </ul>
            <h2 className="mt-3 font-bold">Pin names</h2>
            <ul className="text-sm">
              {view.constants.map((k) => (
                <li
                  key={`${k.host} ${k.name} ${k.hostPin}`}
                  className={`flex justify-between gap-2 ${lit.has(`${k.host}.${k.hostPin}`) ? "bg-wash" : ""}`}
                  onMouseEnter={() => light([`${k.host}.${k.hostPin}`, `${k.ref}.${k.pin}`])}
                  onMouseLeave={() => light([])}
                >
                  <Place of={`${k.ref}.${k.pin}`} className="num min-w-0 truncate">
                    {k.name}
                  </Place>
                  <Place of={`${k.host}.${k.hostPin}`} className="num text-accent">
                    {view.hosts.length > 1 && `${k.host} `}
                    {k.hostPin}
                  </Place>
                </li>
              ))}
            </ul>
          </div>
          <div className="min-w-0">
            <Rules />
            <Sleep />
            <TryIt />
            {file && <Code path={file.path} text={file.text} save={own} />}
          </div>
        </div>
      )}
    </>
  );
}
