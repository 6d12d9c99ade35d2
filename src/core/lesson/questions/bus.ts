import type { Circuit } from "../../circuit";
import { i2cBuses, spiBuses, uartLinks } from "../../circuit/buses";
import type { LessonLevel } from "../../project";
import { at, nameOf, type Asked, type Asker } from "./types";

const time = (s: number) =>
  s >= 1e-3 ? `${Number((s * 1e3).toPrecision(3))} ms` : `${Number((s * 1e6).toPrecision(3))} µs`;
const rate = (Hz: number) => (Hz >= 1e6 ? `${Number((Hz / 1e6).toPrecision(3))} million` : Hz.toLocaleString("en"));

function i2c(c: Circuit, level: LessonLevel): Asked[] {
  return i2cBuses(c).flatMap((b): Asked[] => {
    const named = b.members.filter((m) => m.address);
    if (!named.length) return [];
    const names = named.map((m) => nameOf(c, m.ref)).join(" and ");
    // Start, seven bits of address, one of direction, one of answer; then eight bits and an answer for each byte.
    const bits = 9 + 9;
    return [
      {
        id: `address ${b.id}`,
        ask:
          named.length > 1
            ? `${names} hang on the same two lines. How does the board talk to one of them only?`
            : `${names} has a number of its own. What does the board do with it?`,
        answer: `${named.length > 1 ? "Each has an address" : "It is its address"}: ${named.map((m) => `${nameOf(c, m.ref)} ${m.address}`).join(", ")}. The board says the address first, and only that part answers.`,
      },
      {
        id: `byte ${b.id}`,
        ask: at(
          level,
          `The two lines tick ${rate(b.clock_Hz)} times a second. Is one letter sent faster than you can blink (a tenth of a second)?`,
          `The clock ticks ${rate(b.clock_Hz)} times a second. How long does one byte take, with its answer bit (9 bits)?`,
          `How long does it take to address a part and write one byte to it at ${rate(b.clock_Hz)} bits a second? Count the answer bits too.`,
        ),
        answer: at(
          level,
          `Yes, far faster: it takes ${time(9 / b.clock_Hz)}.`,
          `${time(9 / b.clock_Hz)}.`,
          `${time(bits / b.clock_Hz)}: ${bits} bits, and the start and stop beside them.`,
        ),
        working: at(level, "", `9 / ${b.clock_Hz} Hz`, `(9 + 9) / ${b.clock_Hz} Hz`),
      },
    ];
  });
}

const spi = (c: Circuit, level: LessonLevel): Asked[] =>
  spiBuses(c)
    .filter((b) => b.members.some((m) => m.cs))
    .map((b) => ({
      id: `select ${b.id}`,
      ask: at(
        level,
        `${b.members.map((m) => nameOf(c, m.ref)).join(" and ")} listens only when its own wire says so. Which wire is that?`,
        `Which line tells ${b.members.map((m) => nameOf(c, m.ref)).join(", ")} that it is meant, and at which level?`,
        `Clock and data are shared, a select is not. Which are the selects here? How many wires does each further part cost?`,
      ),
      answer: `${b.members.flatMap((m) => (m.cs ? [`${nameOf(c, m.ref)}: ${m.cs}`] : [])).join(", ")}; it is meant while the line is low.${level === "14+" ? " One more select for each further part." : ""}`,
    }));

const uart = (c: Circuit, level: LessonLevel): Asked[] =>
  uartLinks(c)
    .filter((l) => !l.console)
    .slice(0, 1)
    .map((l) => ({
      id: `baud ${l.ref}`,
      ask: at(
        level,
        `What one says, the other hears: the end called TX goes to the end called ...?`,
        `${nameOf(c, l.ref)} talks at ${l.baud} baud. How long does one letter take (10 bits)?`,
        `${nameOf(c, l.ref)} talks at ${l.baud} baud, the board really makes ${Math.round(l.real.real)}. How long does a letter of 10 bits take, and by how much is its last bit late?`,
      ),
      answer: at(
        level,
        "RX: they are crossed.",
        `${time(10 / l.baud)}.`,
        `${time(10 / l.baud)}; ${time(Math.abs(10 / l.real.real - 10 / l.baud))}.`,
      ),
      working: at(level, "", `10 / ${l.baud}`, `10 / ${l.baud}; 10 / real - 10 / ${l.baud}`),
    }));

export const bus: Asker = { aim: "bus", ask: (c, level) => [...i2c(c, level), ...spi(c, level), ...uart(c, level)] };
