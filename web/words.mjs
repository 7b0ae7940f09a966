/**
 * Gathers the words of the screen, all that stand in t("…"), into the message files of src/words: each has all of
 * them, with what is known of their translation, and none that is used no more.
 *
 * node words.mjs [--check]   with --check nothing is written; it fails where a file would change, or where a
 *                            word has no translation
 */
import { readFileSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import ts from "typescript";

const SOURCE = new URL("src/", import.meta.url).pathname;
const check = process.argv.includes("--check");

/** The words that one call of t() has: a literal, or literals that are joined. */
function literal(node) {
  if (ts.isStringLiteralLike(node)) return node.text;
  if (ts.isBinaryExpression(node) && node.operatorToken.kind === ts.SyntaxKind.PlusToken) {
    const [left, right] = [literal(node.left), literal(node.right)];
    return left === null || right === null ? null : left + right;
  }
  return null;
}

/** Calls within the values of others are words too. */
function wordsIn(file) {
  const found = [];
  const visit = (node) => {
    if (ts.isCallExpression(node) && node.expression.getText() === "t" && node.arguments[0]) {
      const words = literal(node.arguments[0]);
      if (words !== null) found.push(words);
    }
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true));
  return found;
}

const files = readdirSync(SOURCE, { recursive: true })
  .filter((name) => /\.tsx?$/.test(name) && !name.startsWith("words/"))
  .map((name) => join(SOURCE, name));
const words = [...new Set(files.flatMap(wordsIn))].sort();

let wrong = false;
for (const language of ["en", "de"]) {
  const path = join(SOURCE, "words", `${language}.json`);
  const known = JSON.parse(readFileSync(path, "utf8"));
  const now = Object.fromEntries(words.map((key) => [key, known[key] || (language === "en" ? key : "")]));
  const missing = words.filter((key) => !now[key]);
  for (const key of missing) console.error(`${language}.json: “${key}” has no translation.`);
  if (!check) writeFileSync(path, `${JSON.stringify(now, null, 2)}\n`);
  else if (JSON.stringify(now) !== JSON.stringify(known)) {
    console.error(`${language}.json is not as the screen is. Run npm run words.`);
    wrong = true;
  }
  wrong ||= missing.length > 0;
}
process.exitCode = check && wrong ? 1 : 0;
