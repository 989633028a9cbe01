export { compareProofs } from "./compare-proofs.ts";
export { discs } from "./discs.ts";
export { makeProof, type ProofFacts } from "./make-proof.ts";
export { type Proof, proofSchema } from "./proof.ts";
export { type ProofPdfFacts, writeProofPdf } from "./proof-pdf.ts";
export { seenKey } from "./seen-key.ts";
