import { expose } from "comlink";
import { helpWith } from "../core/plan/assign";
import { api } from "./api";
import { serverProver } from "./prover";

helpWith(serverProver);
expose(api);
