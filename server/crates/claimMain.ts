import { claimPdf, type ClaimPaper } from './claimPdf'

// A process of its own: a crate of a thousand bags takes seconds to lay out, and blocks whatever thread it runs on.
process.once('message', (paper: ClaimPaper) => {
  void claimPdf(paper).then((pdf) => process.stdout.write(pdf, () => process.disconnect()))
})
