/** Why a file does not become an audio file, in words for the person who chose it. */
export class Refusal extends Error {
  constructor(
    readonly title: string,
    readonly detail: string,
    readonly todo: string,
  ) {
    super(title)
  }
}
