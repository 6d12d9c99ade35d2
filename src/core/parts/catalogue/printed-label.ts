/** What may stand beside a pin, as printed: also the name of a pin of the plan. */
export const PRINTED_LABEL = /^[A-Za-z0-9+\-~][A-Za-z0-9+\-_.'/]{0,19}$/;
