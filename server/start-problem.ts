/** Why Placard does not start, as a sentence for whoever started it. */
export class StartProblem extends Error {
  constructor(sentence: string, options?: ErrorOptions) {
    super(sentence, options);
    this.name = 'StartProblem';
  }
}
