/** What tells the text of a module and of all that it imports from any other (vite.editions.ts). */
declare module '*?edition' {
  const edition: string
  export default edition
}
