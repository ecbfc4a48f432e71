/** Something the user can understand and mend; shown as it is. */
export class Problem extends Error {
  constructor(
    message: string,
    readonly status = 400,
  ) {
    super(message);
  }
}
