import { reviewPdf, type ReviewPaper } from './reviewPdf'

// A process of its own: laying a sheet out blocks whatever thread it runs on.
process.once('message', (paper: ReviewPaper) => {
  void reviewPdf(paper).then((pdf) => process.stdout.write(pdf, () => process.disconnect()))
})
