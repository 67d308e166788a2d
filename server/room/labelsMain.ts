import { labelsPdf, type LabelPaper } from './labelsPdf'

// A process of its own: some hundred labels take seconds to lay out, and block whatever thread they are laid out on.
process.once('message', (paper: LabelPaper) => {
  void labelsPdf(paper).then((pdf) => process.stdout.write(pdf, () => process.disconnect()))
})
