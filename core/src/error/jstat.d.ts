/** The parts of jStat that are used; it ships no types of its own. */
declare module 'jstat' {
  interface Distribution1 {
    inv(p: number, dof: number): number;
    cdf(x: number, dof: number): number;
  }
  interface Distribution2 {
    inv(p: number, df1: number, df2: number): number;
    cdf(x: number, df1: number, df2: number): number;
  }
  interface NoncentralT {
    cdf(x: number, dof: number, ncp: number): number;
  }
  interface NormalDistribution {
    inv(p: number, mean: number, sd: number): number;
    cdf(x: number, mean: number, sd: number): number;
  }
  export const jStat: {
    readonly centralF: Distribution2;
    readonly studentt: Distribution1;
    readonly chisquare: Distribution1;
    readonly noncentralt: NoncentralT;
    readonly normal: NormalDistribution;
  };
  const whole: { readonly jStat: typeof jStat };
  export default whole;
}
