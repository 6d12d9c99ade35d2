import { expose } from "comlink";
import { helpWith } from "../core/plan/assign";
import { api } from "./api";
import { serverProver } from "./prover";
import { answering } from "./talk/answering";

helpWith(serverProver);
expose(answering(api));
