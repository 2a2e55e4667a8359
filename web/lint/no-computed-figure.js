/** A figure that is shown is reckoned and rounded in the core and comes as words: what is computed here and read by
 * somebody is reported, also through a name, a choice, a template or a function of the same file. What only places a
 * line of a drawing is not read, and goes by. */

const ROUNDED = new Set(['toFixed', 'toPrecision', 'toExponential', 'toLocaleString'])
const ROUNDS = new Set(['round', 'floor', 'ceil', 'trunc'])
const ARITHMETIC = new Set(['-', '*', '/', '%', '**'])
/** Attributes that somebody reads or hears. */
const READ =
  /^(aria-(label|description|valuetext|roledescription)|title|alt|placeholder|label|name|words|text|note|caption|aside|what|reading|said)$/

const propertyOf = (callee) =>
  callee.type === 'MemberExpression' && callee.property.type === 'Identifier' ? callee.property.name : ''
/** Which of some is the least or the most is chosen, not reckoned. */
const CHOSEN = new Set(['min', 'max'])
const isMath = (callee) =>
  callee.type === 'MemberExpression' && callee.object.name === 'Math' && !CHOSEN.has(propertyOf(callee))
/** What stands on the page is counted there: "5 more". */
const isCount = (node) =>
  (node.type === 'MemberExpression' && node.property.name === 'length') ||
  (node.type === 'Literal' && typeof node.value === 'number')

const computes = (node) =>
  node.type === 'CallExpression'
    ? isMath(node.callee)
    : ARITHMETIC.has(node.operator) && !(node.operator === '-' && (isCount(node.left) || isCount(node.right)))

/** What takes the value of a part of it: where that is read, the part is. */
const passesOn = (node, parent) =>
  parent.type === 'TemplateLiteral' ||
  parent.type === 'LogicalExpression' ||
  (parent.type === 'ConditionalExpression' && parent.test !== node) ||
  parent.type === 'TSNonNullExpression' ||
  parent.type === 'TSAsExpression' ||
  (parent.type === 'BinaryExpression' && parent.operator === '+') ||
  (parent.type === 'CallExpression' && parent.callee.name === 'String' && parent.arguments[0] === node) ||
  (parent.type === 'MemberExpression' && parent.object === node) ||
  (parent.type === 'CallExpression' && parent.callee === node)

const isRead = (container) =>
  container.parent.type !== 'JSXAttribute' || READ.test(String(container.parent.name.name))

/** A rounded number that is put into words anywhere but in an attribute that draws. */
const isWorded = (node) => {
  if (node.type !== 'CallExpression' || !ROUNDS.has(propertyOf(node.callee))) return false
  let [at, worded] = [node, false]
  while (at.parent.type === 'BinaryExpression' || passesOn(at, at.parent)) {
    at = at.parent
    worded ||= at.type === 'TemplateLiteral' || at.type === 'CallExpression'
  }
  return worded && at.parent.type !== 'JSXExpressionContainer'
}

/** The name that a function goes by in its file. */
const namedBy = (fn) =>
  fn.type === 'FunctionDeclaration' ? fn : fn.parent.type === 'VariableDeclarator' ? fn.parent : null

/** @type {import('eslint').Rule.RuleModule} */
export const noComputedFigure = {
  meta: {
    type: 'problem',
    schema: [],
    messages: {
      computed: 'A figure that is shown is reckoned in the core: send its words.',
      rounded:
        'A figure is rounded in the core, and comes as words; what moves with hand or clock in src/quantity.',
    },
  },
  create(context) {
    const { sourceCode } = context
    const usesOf = (declared) =>
      sourceCode
        .getDeclaredVariables(declared)
        .flatMap((variable) => variable.references)
        .filter((reference) => reference.isRead())
        .map((reference) => reference.identifier)

    /** Whether somebody reads the value of it. */
    const read = (node, seen) => {
      if (seen.has(node)) return false
      seen.add(node)
      const { parent } = node
      if (parent.type === 'JSXExpressionContainer') return isRead(parent)
      if (passesOn(node, parent)) return read(parent, seen)
      if (parent.type === 'VariableDeclarator' && parent.id.type === 'Identifier')
        return usesOf(parent).some((use) => read(use, seen))
      const returned =
        parent.type === 'ReturnStatement' ||
        (parent.type === 'ArrowFunctionExpression' && parent.body === node)
      if (!returned) return false
      let fn = parent
      while (!/Function/.test(fn.type)) fn = fn.parent
      const declared = namedBy(fn)
      return (
        declared !== null &&
        usesOf(declared).some(
          (use) =>
            use.parent.type === 'CallExpression' && use.parent.callee === use && read(use.parent, seen),
        )
      )
    }

    const judge = (node) => {
      if (computes(node) && (read(node, new Set()) || isWorded(node)))
        context.report({ node, messageId: 'computed' })
    }
    return {
      BinaryExpression: judge,
      CallExpression(node) {
        if (ROUNDED.has(propertyOf(node.callee))) context.report({ node, messageId: 'rounded' })
        else judge(node)
      },
      Identifier(node) {
        if (node.name === 'Intl' && node.parent.type === 'MemberExpression')
          context.report({ node, messageId: 'rounded' })
      },
    }
  },
}
