/** What is wrong, and what to measure next: explanations of what was seen, weighed by what each of them would show. */
export { reasonOf, type How, type Hypothesis, type Judged, type Next, type Reason, type Suspect } from "./reason";
export { isPowered, isTold, keyOf, type Answer, type Observation, type Question } from "./questions";
export { ask, observed, shown, subject } from "./tell";
export { grouped, type Group } from "./groups";
export { experimentsOf, type Experiment, type Outcome } from "./experiments";
export { bound, find, type Found } from "./finding";
