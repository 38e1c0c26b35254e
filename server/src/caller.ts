/** Who is asking. Every query is made with this clinic. */
export interface Caller {
  readonly userId: string;
  readonly name: string;
  readonly clinicId: string;
}
