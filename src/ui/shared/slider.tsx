"use client";
import { Slider as Radix } from "radix-ui";

/** A value that is pushed along a line: by mouse, thumb, arrow keys, Page Up and Down, Home and End. */
export function Slider({
  label,
  value,
  min,
  max,
  step = 1,
  onChange,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  step?: number;
  onChange(v: number): void;
}) {
  return (
    <Radix.Root
      className="relative flex h-6 min-w-24 grow touch-none items-center"
      value={[value]}
      min={min}
      max={max}
      step={step}
      onValueChange={([v]) => onChange(v!)}
    >
      <Radix.Track className="relative h-[3px] grow bg-line">
        <Radix.Range className="absolute h-full bg-accent" />
      </Radix.Track>
      <Radix.Thumb aria-label={label} className="block size-[15px] rounded-full border border-accent bg-accent" />
    </Radix.Root>
  );
}
