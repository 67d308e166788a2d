// Stands in for styles where there is no browser to look at them.
export {}
