/** The means by which a band's tension is measured, in the order of the house rule. */
export const MEANS = ["gauge", "pluck", "push", "scale", "travel"] as const;
export type Means = (typeof MEANS)[number];
