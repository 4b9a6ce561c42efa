import type { RunInput } from "../../api/schema";

/** What is filled in of a run, kept with its job until it is logged. */
export interface RunForm {
  readonly symptoms: NonNullable<RunInput["symptoms"]>;
  readonly pieces: number;
  readonly length: number | null;
  readonly minutes: number | null;
  readonly note: string;
  readonly watts: number | null;
  readonly amps: number | null;
  readonly chips: RunInput["chips"] | null;
  readonly stops: NonNullable<RunInput["stops"]>;
  readonly strikes: number;
  readonly teeth_lost: number;
}

export function blankRun(): RunForm {
  return {
    symptoms: [],
    pieces: 1,
    length: null,
    minutes: null,
    note: "",
    watts: null,
    amps: null,
    chips: null,
    stops: [],
    strikes: 0,
    teeth_lost: 0,
  };
}

/** What the motor of one saw takes idling, and its plate: the same from run to run. */
export interface Motor {
  readonly watts: number | null;
  readonly amps: number | null;
  readonly volts: number | null;
  readonly phases: 1 | 3;
}
export const NO_MOTOR: Motor = { watts: null, amps: null, volts: 230, phases: 1 };

/** The motor's part of a run: watts, or amps whole; nothing where half of it is missing. */
export function motorOf(form: RunForm, motor: Motor): Partial<RunInput> {
  if (form.watts !== null && motor.watts !== null)
    return { power_W: form.watts, idle_W: motor.watts };
  if (form.amps !== null && motor.amps !== null && motor.volts !== null)
    return {
      amps_A: form.amps,
      idle_A: motor.amps,
      volts_V: motor.volts,
      phases: motor.phases,
    };
  return {};
}
