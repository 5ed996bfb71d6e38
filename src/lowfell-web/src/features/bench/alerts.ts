import { useEffect, useRef } from "react";
import { type Door } from "./fold";
import { labelsOf } from "../../shared/labels";

/** How a window's edge is told to somebody who looks elsewhere; nothing until it is asked for. */
export const ways = ["sound", "vibration", "voice"] as const;
export type Way = (typeof ways)[number];

const KEY = "lowfell.bench.alerts";

export const alerts = {
  on: (): Way[] => ways.filter((w) => (localStorage.getItem(KEY) ?? "").split(" ").includes(w)),
  set: (on: readonly Way[]) => localStorage.setItem(KEY, on.join(" ")),
};

/** Minutes before a window closes at which it is told, and when it opens and closes. */
const EDGES = [15, 5, 0];

export const edgesPassed = (was: number, is: number) => EDGES.filter((edge) => was > edge && is <= edge);

const BEEP_HZ = 660,
  BEEP_S = 0.25;

function beep() {
  const audio = new AudioContext();
  const tone = audio.createOscillator();
  const volume = audio.createGain();
  tone.frequency.value = BEEP_HZ;
  volume.gain.setValueAtTime(0.2, audio.currentTime);
  volume.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + BEEP_S);
  tone.connect(volume).connect(audio.destination);
  tone.onended = () => void audio.close();
  tone.start();
  tone.stop(audio.currentTime + BEEP_S);
}

/** Tells it in every way that was asked for. */
export function alert(words: string, by: readonly Way[] = alerts.on()) {
  if (by.includes("sound")) beep();
  if (by.includes("vibration")) navigator.vibrate?.([200, 100, 200]);
  if (by.includes("voice")) window.speechSynthesis?.speak(new SpeechSynthesisUtterance(words));
}

export const doorWords = (d: Door) =>
  d.closesIn <= 0
    ? `Too late to ${verb(d.closes)} ${labelsOf(d.row.pieces)}.`
    : `${verb(d.closes, true)} ${labelsOf(d.row.pieces)}: ${Math.ceil(d.closesIn)} minutes left.`;

const verb = (closes: string, first = false) => {
  const words = closes === "clean up excess" ? "clean up" : closes === "chip through" ? "chip" : closes;
  return first ? words[0]!.toUpperCase() + words.slice(1) : words;
};

/** Tells each edge of each window once, as it passes. */
export function useAlerts(all: readonly Door[]) {
  const seen = useRef(new Map<string, number>());
  useEffect(() => {
    for (const d of all) {
      const key = `${d.row.eventId} ${d.row.pieceId}`;
      const was = seen.current.get(key);
      seen.current.set(key, d.closesIn);
      if (was !== undefined && edgesPassed(was, d.closesIn).length > 0) alert(doorWords(d));
    }
  }, [all]);
}
