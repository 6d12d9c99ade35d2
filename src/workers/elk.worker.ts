// The layout library makes itself this worker's message handler.
import "elkjs/lib/elk-worker.min.js";
