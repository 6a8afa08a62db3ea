import ts from 'typescript';

const swaps = new Map([
  [ts.SyntaxKind.LessThanToken, '<='],
  [ts.SyntaxKind.LessThanEqualsToken, '<'],
  [ts.SyntaxKind.GreaterThanToken, '>='],
  [ts.SyntaxKind.GreaterThanEqualsToken, '>'],
  [ts.SyntaxKind.EqualsEqualsEqualsToken, '!=='],
  [ts.SyntaxKind.ExclamationEqualsEqualsToken, '==='],
  [ts.SyntaxKind.AmpersandAmpersandToken, '||'],
  [ts.SyntaxKind.BarBarToken, '&&'],
  [ts.SyntaxKind.QuestionQuestionToken, '&&'],
  [ts.SyntaxKind.PlusToken, '-'],
  [ts.SyntaxKind.MinusToken, '+'],
  [ts.SyntaxKind.AsteriskToken, '/'],
  [ts.SyntaxKind.SlashToken, '*'],
]);

/**
 * Every mutant of a source: one operator, condition, constant or statement changed.
 * @returns for each the whole changed text, the line, and what was changed
 */
export function mutantsOf(file, source) {
  const tree = ts.createSourceFile(file, source, ts.ScriptTarget.ES2022, true);
  const mutants = [];
  const replace = (node, text) => {
    const [from, to] = [node.getStart(tree), node.getEnd()];
    const line = tree.getLineAndCharacterOfPosition(from).line + 1;
    const before = source.slice(from, to).replace(/\s+/g, ' ');
    mutants.push({
      text: source.slice(0, from) + text + source.slice(to),
      line,
      what: `${before.slice(0, 60)} → ${text || 'nothing'}`,
    });
  };
  const visit = (node) => {
    // Types and imports do nothing when it runs.
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node) || ts.isInterfaceDeclaration(node)) return;
    if (ts.isTypeAliasDeclaration(node) || ts.isDecorator(node)) return;
    if (ts.isBinaryExpression(node)) {
      const swap = swaps.get(node.operatorToken.kind);
      const isText = ts.isStringLiteralLike(node.left) || ts.isStringLiteralLike(node.right);
      if (swap && !isText) replace(node.operatorToken, swap);
    } else if (ts.isIfStatement(node)) {
      replace(node.expression, 'true');
      replace(node.expression, 'false');
    } else if (ts.isConditionalExpression(node)) {
      replace(node.condition, 'true');
      replace(node.condition, 'false');
    } else if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken) {
      replace(node, `(${node.operand.getText(tree)})`);
    } else if (node.kind === ts.SyntaxKind.TrueKeyword) replace(node, 'false');
    else if (node.kind === ts.SyntaxKind.FalseKeyword) replace(node, 'true');
    // One more of many makes no difference: large numbers are doubled.
    else if (ts.isNumericLiteral(node))
      replace(node, Number(node.text) < 100 ? `(${node.text} + 1)` : `(${node.text} * 2)`);
    else if (ts.isExpressionStatement(node) && ts.isCallExpression(node.expression)) {
      const called = node.expression.expression;
      // What stands in the log is promised to nobody.
      if (called.kind !== ts.SyntaxKind.SuperKeyword && !/\blog\./.test(called.getText(tree))) replace(node, ';');
    }
    ts.forEachChild(node, visit);
  };
  visit(tree);
  return mutants;
}
