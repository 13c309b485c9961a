import typescript from 'typescript'

/** Types that say which members of another one they have: whoever takes one of them may be handed the whole model. */
const picking = new Set(['Pick', 'Omit', 'Partial', 'Required', 'Readonly'])

/** Whether a value of a type is a row as Sequelize has it, or, where it was handed over, may be one. */
function isModel(type, checker, isHandedOver) {
  if (!type) return false
  if (type.isUnionOrIntersection()) return type.types.some(each => isModel(each, checker, isHandedOver))
  if (isHandedOver && picking.has(type.aliasSymbol?.name)) return isModel(type.aliasTypeArguments?.[0], checker, true)
  if (!type.isClassOrInterface() && !type.target?.isClassOrInterface?.()) return false
  return (
    type.symbol?.name === 'Model' ||
    (checker.getBaseTypes(type.target ?? type) ?? []).some(base => isModel(base, checker, isHandedOver))
  )
}

const message =
  'A model’s members are getters of its class: they are not copied. Name those that are meant, or use get().'

/**
 * Forbids `{ ...row }` and `const { id, ...rest } = row` of a Sequelize model, also of one that is called a Pick of it: the copy
 * has the model's own bookkeeping and none of its columns.
 */
export const noModelSpread = {
  meta: { type: 'problem', schema: [], messages: { spread: message } },
  create(context) {
    const services = context.sourceCode.parserServices
    const checker = services.program.getTypeChecker()
    const look = (node, of, isHandedOver) => {
      if (isModel(services.getTypeAtLocation(of), checker, isHandedOver)) context.report({ node, messageId: 'spread' })
    }
    /** A parameter says by its type what it takes; what a query or a closure answers is what it is. */
    const isParameter = node => {
      const declaration = node.type === 'Identifier' && services.getSymbolAtLocation(node)?.valueDeclaration
      return Boolean(declaration && typescript.isParameter(declaration) && declaration.type)
    }
    return {
      'ObjectExpression > SpreadElement': node => look(node, node.argument, isParameter(node.argument)),
      'ObjectPattern > RestElement': node => look(node, node.parent, Boolean(node.parent.typeAnnotation)),
    }
  },
}
