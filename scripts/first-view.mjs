// What a browser that knows nothing has to fetch before the plan stands: the page, its scripts, styles and font, as they are sent.
// FOLDER MOST-KB — fails where it is more.
import { existsSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync } from "node:zlib";

const [, , folder, most] = process.argv;
const page = readFileSync(join(folder, "index.html"), "utf8");
const sent = (name) => statSync(join(folder, existsSync(join(folder, `${name}.br`)) ? `${name}.br` : name)).size;
const named = [...page.matchAll(/<(?:link|script)\b[^>]*>/g)]
  .filter(([tag]) => !/data-view="(?!plan")/.test(tag))
  .flatMap(([tag]) => tag.match(/(?:href|src)="\/(assets\/[^"]+)"/)?.[1] ?? []);
const styles = named.filter((name) => name.endsWith(".css")).map((name) => readFileSync(join(folder, name), "utf8"));
const font = styles.flatMap((css) => [...css.matchAll(/\/(assets\/[^")]*-latin-wght-normal[^")]*\.woff2)/g)].map(([, name]) => name));
const bytes = brotliCompressSync(page).length + [...new Set([...named, ...font])].reduce((sum, name) => sum + sent(name), 0);
console.log(`the first view weighs ${(bytes / 1024).toFixed(1)} kB of ${most}`);
process.exitCode = font.length === 1 && bytes <= most * 1024 ? 0 : 1;
