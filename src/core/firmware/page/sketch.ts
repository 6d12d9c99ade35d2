import type { DriverPart, FirmwareFile } from "../types";
import { ascii, pageRows } from "./rows";

/** What a family's core calls its network; the calls are the same. Only families with such a radio stand here. */
const NETWORK: Readonly<Record<string, string>> = { esp32: "WiFi.h", esp8266: "ESP8266WiFi.h" };
export const hasNetworkCore = (family: string) => family in NETWORK;

/** The network's name and password are a file of the person's own beside the sketch, which is never written. */
export const PAGE_FILES_IN_C: readonly FirmwareFile[] = [
  {
    path: "starter/wlan.example.h",
    text: `// The local network. Copy this file to wlan.h beside it and fill it in there: it is no part of the plan, and is never written over.
#pragma once
#define WLAN_NAME ""
#define WLAN_PASSWORD ""
`,
  },
];

const html = (text: string) =>
  ascii(text).replace(/[&<>"]/g, (ch) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[ch]!);
/** A text as C writes it; a question mark can't begin another sign. */
const quoted = (text: string) => JSON.stringify(text).replace(/\?/g, "\\?");

/** A page without anything that can be pressed: everybody on the network may read it, nobody can switch anything. */
const LIB = `static WiFiServer page_server(80);
static WiFiClient page_who;
static std::string page_asked;
static uint32_t page_since = 0;
static bool page_open = false;

static std::string pageNumber(int32_t v, uint8_t digits, uint8_t shown) {
  int32_t unit = 1;
  for (uint8_t i = shown; i < digits; i++) unit *= 10;
  // Rounded as on a display, to the nearest.
  uint32_t size = v < 0 ? 0u - (uint32_t)v : (uint32_t)v;
  size = (size + unit / 2) / unit;
  std::string text = std::to_string(size);
  if (text.size() <= shown) text.insert(0, shown + 1 - text.size(), '0');
  if (shown) text.insert(text.size() - shown, 1, '.');
  return v < 0 && size ? "-" + text : text;
}

static void pageSay(const char *status, const char *kind, const std::string &body) {
  std::string text = std::string("HTTP/1.0 ") + status + "\\r\\nContent-Type: " + kind + "\\r\\nConnection: close\\r\\n\\r\\n" + body;
  page_who.write((const uint8_t *)text.data(), text.size());
  page_who.stop();
}`;

/** Answers whoever asks; gone and come back, the network is taken back. Nothing waits for it. The body of its task. */
export const PAGE_TURN = `  if (WiFi.status() != WL_CONNECTED) {
  page_open = false;
  return;
}
if (!page_open) {
  page_open = true;
  page_server.begin();
  Serial.print(F("page http://"));
  Serial.print(WiFi.localIP().toString().c_str());
  Serial.println(F("/"));
}
if (!page_who) {
  page_who = page_server.accept();
  page_asked.clear();
  page_since = millis();
}
if (!page_who) return;
while (page_who.available()) {
  char c = page_who.read();
  if (c != '\\n') {
    if (page_asked.size() < 200) page_asked += c;
    continue;
  }
  size_t from = page_asked.find(' ');
  std::string path = from == std::string::npos ? "/" : page_asked.substr(from + 1, page_asked.find(' ', from + 1) - from - 1);
  if (path == "/") pageSay("200 OK", "text/html; charset=utf-8", pageHtml());
  else if (path == "/json") pageSay("200 OK", "application/json", pageJson());
  else pageSay("404 Not Found", "text/plain", "nothing here; / and /json are\\n");
  return;
}
// Somebody who says nothing is not waited for.
if (millis() - page_since > 1000) page_who.stop();`;

/** The page of a sketch: its includes and functions, and what begins it. */
export function pageInC(
  family: string,
  title: string,
  parts: readonly DriverPart[],
): { globals: string; begin: string } {
  const rows = pageRows(parts, "sketch").map((r) => ({
    ...r,
    number: `pageNumber(${r.value}, ${r.digits}, ${r.shown})`,
  }));
  const either = (fresh: string | undefined, text: string, none: string) =>
    fresh ? `(${fresh} ? ${text} : std::string(${none}))` : text;
  const page = rows.map(
    (r) =>
      `  text += ${quoted(`<tr><th scope=row>${html(r.word)}</th><td>`)};\n  text += ${either(r.fresh, r.number, '"--"')};\n  text += ${quoted(` ${html(r.unit)}</td></tr>`)};`,
  );
  const json = rows.map(
    (r, i) =>
      `  text += ${quoted(`${i ? ", " : ""}${JSON.stringify(r.word)}: `)};\n  text += ${either(r.fresh, `"\\"" + ${r.number} + "\\""`, '"null"')};`,
  );
  const head = `<!doctype html><html lang=en><meta charset=utf-8><meta name=viewport content='width=device-width'><meta http-equiv=refresh content=10><title>${html(title)}</title><h1>${html(title)}</h1><table>`;
  return {
    globals: `#include <${NETWORK[family]}>
#include <string>
#if __has_include("wlan.h")
#include "wlan.h"
#endif

${LIB}

static std::string pageHtml() {
  std::string text = ${quoted(head)};
${page.join("\n")}
  return text + "</table></html>";
}

static std::string pageJson() {
  std::string text = "{";
${json.join("\n")}
  return text + "}";
}
`,
    begin: `#ifdef WLAN_NAME
WiFi.mode(WIFI_STA);
WiFi.begin(WLAN_NAME, WLAN_PASSWORD);
#else
Serial.println(F("no local network: copy wlan.example.h to wlan.h and fill it in"));
#endif`,
  };
}
