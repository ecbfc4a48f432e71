import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { SHELF } from '../core/exercise/shelf';
import { PROTOCOLS, STEPS } from '../core/lesson/protocols';
import { BRIDGED, CATEGORIES } from '../core/map/categories';
import { SCHOOLS } from '../core/map/schools';
import { FINDING_NAMES } from '../core/map/types';
import { ASKED_FOR, PATTERNS } from '../core/music/patterns';
import { BY_AGE, CHANGING_SAYS } from '../core/plan/ages';
import { INTAKE_QUESTIONS } from '../core/plan/intake';
import { OCCASIONS } from '../core/plan/occasions';
import { RULES } from '../core/plan/rules';
import { SAFETY } from '../core/plan/safety';
import { VOICE_TYPES } from '../core/plan/voice-types';
import { COMFORT, phasesFor, WAYS } from '../core/plan/ways';
import { REASONS, STYLE_WORDS, WISH_WORDS } from '../core/plan/which-school';
import { ELSEWHERE } from '../core/practice/elsewhere';
import { MEASURED } from '../core/practice/measures';

/** Where every message stands that pages say, for the test of the catalogues. */

/** Messages in tables of the core, looked up when they are shown. */
function fromTables(): string[] {
  const phases = SCHOOLS.flatMap((school) =>
    [undefined, ...FINDING_NAMES].flatMap((finding) =>
      [false, true].flatMap((light) => [false, true].flatMap((minor) => phasesFor(school.id, finding, { light, minor }))),
    ),
  );
  return [
    ...SHELF.flatMap((e) => [e.name, e.how, e.purpose, e.caution, ...e.sounds]),
    ...Object.values(STEPS).flatMap((s) => [s.name, s.how, s.vowel]),
    ...PROTOCOLS.flatMap((p) => [p.name, p.purpose]),
    ...[COMFORT, ...phases].flatMap((p) => [p.name, p.aim, p.until]),
    ...Object.values(WAYS).map((w) => w.success),
    ...SCHOOLS.flatMap((s) => [s.name, s.holds]),
    ...[...CATEGORIES, ...BRIDGED].flatMap((c) => [c.name, ...c.changes.map(([name]) => name)]),
    ...Object.values(BY_AGE).flatMap((a) => [a.name, a.says ?? '']),
    CHANGING_SAYS,
    ...INTAKE_QUESTIONS.flatMap((q) => [q.asks, q.says]),
    ...Object.values(OCCASIONS).flatMap((o) => [o.name, o.says]),
    ...Object.values(RULES),
    ...SAFETY.map((r) => r.says),
    ...VOICE_TYPES.map((v) => v.name),
    ...REASONS.map((r) => r.says),
    ...Object.values(STYLE_WORDS),
    ...Object.values(WISH_WORDS),
    ...Object.values(ELSEWHERE).flatMap((e) => [e.name, e.told]),
    ...MEASURED.map((m) => m.name),
    ...Object.keys(PATTERNS),
    ASKED_FOR,
  ];
}

const SAYS = new Set(['t', 'rich', 'said', 'sayHere']);
const isText = (node: ts.Node): node is ts.StringLiteral | ts.NoSubstitutionTemplateLiteral =>
  ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node);

/** The texts an expression may come to: either side of a condition counts. */
function textsOf(node: ts.Expression): string[] {
  if (isText(node)) return [node.text];
  if (ts.isParenthesizedExpression(node)) return textsOf(node.expression);
  if (ts.isConditionalExpression(node)) return [...textsOf(node.whenTrue), ...textsOf(node.whenFalse)];
  if (ts.isBinaryExpression(node)) return [...textsOf(node.left), ...textsOf(node.right)];
  return [];
}

/** Properties that name a thing for the program, not for the reader. */
const NO_WORDS = new Set(['id', 'at', 'href', 'key']);

/** Whether a text in a table is a name for the program: a property's name or id, or what a pair in a list of pairs goes by. */
function isName(node: ts.StringLiteral | ts.NoSubstitutionTemplateLiteral): boolean {
  const { parent } = node;
  if (ts.isPropertyAssignment(parent)) return parent.name === node || NO_WORDS.has(parent.name.getText());
  return (
    ts.isArrayLiteralExpression(parent) &&
    ts.isArrayLiteralExpression(parent.parent) &&
    parent.elements[0] === node &&
    parent.elements.length > 1 &&
    /^[a-z0-9/-]+$/.test(node.text)
  );
}

/** Every text within a node that is said. */
function allWithin(node: ts.Node): string[] {
  if (isText(node)) return isName(node) ? [] : [node.text];
  const found: string[] = [];
  node.forEachChild((child) => void found.push(...allWithin(child)));
  return found;
}

/** Errors that are said to a reader (`SaidError`). */
const SAID_ERRORS = new Set([
  'SaidError',
  'Refusal',
  'Refused',
  'Away',
  'InputError',
  'MusicFileError',
  'PatternError',
  'SoundFileError',
  'TypedError',
]);
/** What a shape of what is sent demands may say what to do instead. */
const DEMANDS = new Set(['min', 'max', 'email', 'regex', 'refine']);
/** A refusal's code. */
const isCode = (node: ts.Expression) => isText(node) && /^[a-z-]+$/.test(node.text);

/** What a call says: the message of `t`, `said` and the like and the words in its gaps; all that stands in `texts`; the words of an error. */
function saidBy(node: ts.Node): string[] {
  if (ts.isNewExpression(node) && SAID_ERRORS.has(node.expression.getText()))
    return (node.arguments ?? []).filter((text) => !isCode(text)).flatMap(textsOf);
  if (!ts.isCallExpression(node)) return [];
  const name = node.expression.getText().split('.').pop()!;
  if (DEMANDS.has(name)) return node.arguments.slice(name === 'email' ? 0 : 1).flatMap(textsOf);
  if (name === 'texts') return node.arguments.flatMap(allWithin);
  if (!SAYS.has(name)) return [];
  const [message, values] = node.arguments;
  const inGaps =
    values && ts.isObjectLiteralExpression(values)
      ? values.properties.flatMap((p) => (ts.isPropertyAssignment(p) ? textsOf(p.initializer) : []))
      : [];
  return message ? [...textsOf(message), ...inGaps] : [];
}

function inFile(path: string): string[] {
  const file = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const visit = (node: ts.Node) => {
    found.push(...saidBy(node));
    node.forEachChild(visit);
  };
  visit(file);
  return found;
}

/** What is the same in every language: gaps and signs alone, unless one is a quotation mark. */
const hasWords = (message: string) => /[\p{L}“]/u.test(message.replace(/\{\w+(, number, [^}]*)?\}/g, ''));

/** Every message of the interface, each once, with the file it is said in. */
export function allMessages(root: string): Map<string, string> {
  const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter(
    (f) => /\.tsx?$/.test(f) && !/\.test\.tsx?$|(^|\/)made-|^cli\//.test(f),
  );
  const all = new Map<string, string>();
  const put = (message: string, where: string) => {
    if (hasWords(message) && !all.has(message)) all.set(message, where);
  };
  for (const file of files.sort()) for (const message of inFile(join(root, file))) put(message, file);
  for (const message of fromTables()) put(message, 'tables of the core');
  return all;
}
