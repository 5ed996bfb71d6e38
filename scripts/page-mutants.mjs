// choose SEEDS HOW-MANY — settings for lines of the page's logic, by chance and the same for the same seed; to be run where the page lies.
// tell FOLDER — what became of the faults on them.
import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";

const [, , what, ...given] = process.argv;

const seedsOf = (words) =>
  words.split(",").flatMap((part) => {
    const [from, to = from] = part.split("-").map(Number);
    return Array.from({ length: to - from + 1 }, (_, i) => from + i);
  });

/** Numbers from 0 to 1 that go by a seed (a mixing of 32 bits by multiplication and shifts). */
const chance = (seed) => () => {
  seed = (seed + 0x6d2b79f5) | 0;
  let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
};

const files = (folder) =>
  readdirSync(folder)
    .sort()
    .flatMap((name) => {
      const at = join(folder, name);
      if (statSync(at).isDirectory()) return files(at);
      return /\.ts$/.test(name) && !/\.(test|d)\.ts$/.test(name) ? [at] : [];
    });

/** Something is decided, reckoned or left out there. */
const decides = (line) =>
  /[<>]=?|[-+*/%]|&&|\|\||===|!==|\?|\d|\.(filter|sort|slice|some|every)\(/.test(line) &&
  !/^\s*(\/\/|\/?\*|import|export type|type )/.test(line);

if (what === "choose") {
  const all = files("src").flatMap((file) =>
    readFileSync(file, "utf8")
      .split("\n")
      .flatMap((line, i) => (decides(line) ? [`${file}:${i + 1}-${i + 1}`] : [])),
  );
  const lines = new Set();
  for (const seed of seedsOf(given[0])) {
    const next = chance(seed);
    // A line has one or two of them, on the mean.
    for (let n = 0; n < Math.ceil(Number(given[1]) / 2); n++) lines.add(all[Math.floor(next() * all.length)]);
  }
  console.log(
    JSON.stringify({
      testRunner: "vitest",
      plugins: ["@stryker-mutator/vitest-runner"],
      coverageAnalysis: "perTest",
      mutate: [...lines],
      reporters: ["json"],
      allowEmpty: true,
      concurrency: 2,
      disableTypeChecks: false,
    }),
  );
} else {
  const report = JSON.parse(readFileSync(join(given[0], "reports/mutation/mutation.json"), "utf8"));
  const faults = Object.entries(report.files).flatMap(([file, { mutants }]) =>
    mutants.map((m) => ({ ...m, file, line: m.location.start.line })),
  );
  const noticed = faults.filter((f) => ["Killed", "Timeout"].includes(f.status));
  const alive = faults.filter((f) => ["Survived", "NoCoverage"].includes(f.status));
  for (const f of alive)
    console.log(`  SURVIVED: ${f.file}:${f.line} ${f.mutatorName}: ${f.replacement.slice(0, 140)}${f.status === "NoCoverage" ? " (no test comes by)" : ""}`);
  console.log(`the page: ${noticed.length} of ${noticed.length + alive.length} noticed, ${alive.length} survived`);
  // Where nothing was tried, nothing was noticed.
  process.exitCode = faults.length === 0 || alive.length * 10 > noticed.length + alive.length ? 1 : 0;
}
