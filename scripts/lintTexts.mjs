import { ESLint } from 'eslint';

/* Lints texts as if they stood at given places; in and out as JSON. A process of its own, since ESLint loads its settings by dynamic import. */
let input = '';
for await (const chunk of process.stdin) input += chunk;
const eslint = new ESLint();
const out = [];
for (const { filePath, code } of JSON.parse(input)) {
  const [result] = await eslint.lintText(code, { filePath });
  out.push(result.messages.map((m) => m.ruleId));
}
process.stdout.write(JSON.stringify(out));
