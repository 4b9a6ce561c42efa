/** Which jobs are shown, and in which order. */
import type { JobAnswer } from "../../api/schema";

export type JobOrder = "newest" | "name" | "saw" | "material" | "left";
export interface JobFilter {
  readonly text: string;
  readonly saw: number | null;
  /** Done jobs stand aside unless they are asked for. */
  readonly done: boolean;
}

export const ORDERS: Record<
  JobOrder,
  { name: string; by: (a: JobAnswer, b: JobAnswer) => number }
> = {
  newest: { name: "latest first", by: (a, b) => b.updated_at.localeCompare(a.updated_at) },
  name: { name: "name", by: (a, b) => a.name.localeCompare(b.name) },
  saw: { name: "saw", by: (a, b) => (a.saw_name ?? "").localeCompare(b.saw_name ?? "") },
  material: { name: "material", by: (a, b) => a.material_name.localeCompare(b.material_name) },
  left: {
    name: "pieces left",
    by: (a, b) => b.count - b.done_pieces - (a.count - a.done_pieces),
  },
};

export function shownJobs(
  jobs: readonly JobAnswer[],
  { text, saw, done }: JobFilter,
  order: JobOrder,
): JobAnswer[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  return jobs
    .filter((job) => {
      const said =
        `${job.name} ${job.note} ${job.operation} ${job.material_name} ${job.saw_name ?? ""} ${job.band_label ?? ""} ${job.state}`.toLowerCase();
      return (
        (done || job.state !== "done" || words.length > 0) &&
        (saw === null || job.saw_id === saw) &&
        words.every((w) => said.includes(w))
      );
    })
    .sort((a, b) => ORDERS[order].by(a, b) || b.id - a.id);
}
