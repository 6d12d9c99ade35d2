/** What happens at the bench: what to measure, with limits, and how a reading is judged. */
export * from "./checklist";
