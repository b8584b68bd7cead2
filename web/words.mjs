// Prints every text of the pages as JSON, by file: what stands between tags, what attributes and
// strings say, and apart from it what buttons say. What is put in stands as {…}.
import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";
import ts from "typescript";

const root = new URL("src/", import.meta.url).pathname;

function* sources(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sources(path);
    else if (/\.tsx?$/.test(entry.name) && !/\.(test|d)\.tsx?$/.test(entry.name)) yield path;
  }
}

/** Attributes that no reader sees. */
const unseen = /^(className|style|key|id|type|role|href|to|src|d|points|transform|viewBox|fill|stroke|name|path|rel|step|size|variant|color|htmlFor|data-.*|mode|value|tabIndex|accept|aria-live|autoComplete|inputMode|loading|placement|rel|scope)$/;

const texts = (path, buttons) => {
  const out = [];
  const say = (text, tagged = false) => {
    const line = text.replace(/\s+/g, " ").trim();
    const words = /\p{L}{2,}/u.test(line);
    const sentence = /\p{L}[ ,.…’]/u.test(line) && / /.test(line);
    if (words && (tagged || sentence || /^\p{Lu}\p{Ll}+[.…]?$/u.test(line))) out.push(line);
  };
  const template = (node) =>
    node.head.text + node.templateSpans.map((span) => "{…}" + span.literal.text).join("");
  const visit = (node) => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isTypeNode(node)) return;
    if (ts.isJsxAttribute(node)) {
      const name = node.name.getText();
      if (unseen.test(name)) {
        if (node.initializer && ts.isJsxExpression(node.initializer)) ts.forEachChild(node.initializer, attribute);
        return;
      }
      if (node.initializer && ts.isStringLiteral(node.initializer)) return say(node.initializer.text, true);
    }
    if (ts.isJsxElement(node) || ts.isJsxFragment(node)) return element(node);
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return say(node.text);
    if (ts.isTemplateExpression(node)) {
      say(template(node));
      return node.templateSpans.forEach((span) => visit(span.expression));
    }
    ts.forEachChild(node, visit);
  };
  // Of an unseen attribute only what is drawn inside it.
  const attribute = (node) => (ts.isJsxElement(node) ? element(node) : ts.forEachChild(node, attribute));
  // A run of text and expressions between tags is one text.
  const element = (node) => {
    const press =
      ts.isJsxElement(node) && /^(Button|button)$/.test(node.openingElement.tagName.getText());
    if (ts.isJsxElement(node)) visit(node.openingElement);
    let run = "";
    const flush = () => {
      say(run, true);
      if (press && /\p{L}/u.test(run)) buttons.push(run.replace(/\s+/g, " ").trim());
      run = "";
    };
    for (const child of node.children) {
      if (ts.isJsxText(child)) run += child.text;
      else if (ts.isJsxExpression(child)) {
        const inner = child.expression;
        if (inner && press && ts.isConditionalExpression(inner))
          for (const side of [inner.whenTrue, inner.whenFalse])
            if (ts.isStringLiteral(side)) buttons.push(side.text);
        if (inner && ts.isStringLiteral(inner)) run += inner.text;
        else {
          run += inner ? "{…}" : "";
          if (inner) visit(inner);
        }
      } else if (ts.isJsxElement(child) && /^(b|em|strong|small|kbd|Link|a)$/.test(child.openingElement.tagName.getText())) {
        run += "{…}";
        element(child);
      } else {
        flush();
        visit(child);
      }
    }
    flush();
  };
  visit(ts.createSourceFile(path, readFileSync(path, "utf8"), ts.ScriptTarget.Latest, true, path.endsWith("x") ? ts.ScriptKind.TSX : ts.ScriptKind.TS));
  return [...new Set(out)];
};

const all = {};
const buttons = {};
for (const path of [...sources(root)].sort()) {
  const pressed = [];
  const found = texts(path, pressed);
  if (pressed.length > 0) buttons["web/src/" + relative(root, path)] = [...new Set(pressed)];
  if (found.length > 0) all["web/src/" + relative(root, path)] = found;
}
process.stdout.write(JSON.stringify({ texts: all, buttons }));
