import vue from '@vitejs/plugin-vue'

/** What is needed of the nodes of a Vue template (@vue/compiler-core, RootNode and its kin). */
interface TemplateNode {
  type: number
  tag?: string
  tagType?: number
  content?: unknown
  children?: TemplateNode[]
  props?: object[]
  loc: object
}
const [element, text, interpolation, attribute] = [1, 2, 5, 6]
const plain = 0

/** Whether an element has words of the page's own, which `t` or the `messages` that it is of say (site/messages.ts); a `template` in it is no element. */
const saysWords = ({ children = [] }: TemplateNode): boolean =>
  children.some(
    child =>
      (child.type === interpolation && /\b(t|messages)\b/.test((child.content as { content: string }).content)) ||
      (child.type === element && (child.tag === 'FormattedMessage' || (child.tag === 'template' && saysWords(child)))),
  )

const attributeOf = (name: string, content: string, { loc }: TemplateNode): object => ({
  type: attribute,
  name,
  nameLoc: loc,
  value: { type: text, content, loc },
  loc,
})

/** Where the public pages have no words in a show's language they say them in English, and are marked for that (WCAG 2.2, 3.1.2). */
function markOwnWords(node: TemplateNode, { filename }: { filename: string }): void {
  if (!/(?<![\\/]src)[\\/]site[\\/]\w+\.vue$/.test(filename)) return
  if (node.type !== element || node.tagType !== plain || node.tag === 'template' || !saysWords(node)) return
  node.props!.push(attributeOf('lang', 'en', node), attributeOf('dir', 'ltr', node))
}

/** Vue's components, for what draws the public pages. */
export const vueWithMarks = () => vue({ template: { compilerOptions: { nodeTransforms: [markOwnWords as never] } } })
