# Values of R's splinefun(method = "monoH.FC"), which is Fritsch & Carlson (1980) with tangents that begin as the mean of
# the neighbouring secants. R keeps tangents outside the circle of radius 3 if they are inside the larger region of the
# paper's figure 1; these knots have none of those, so both readings of the paper agree.
# Run: Rscript tools/make_reference_curve.R > data/reference/curve-monohfc.csv
sets <- list(
  list(x = c(0, 1), y = c(0.1, 0.9)),
  list(x = c(0, 0.25, 1), y = c(0, 0.5, 0.875)),
  list(x = c(0, 0.2, 0.5, 0.8, 1), y = c(0, 0.1, 0.55, 0.85, 1)),
  list(x = c(-0.5, 0, 0.18, 1, 1.1, 4), y = c(-0.4, 0, 0.2, 0.95, 1.06, 4)),
  list(x = c(0, 0.1, 0.5, 0.9, 1), y = c(0, 0.4, 0.5, 0.6, 1)),
  list(x = c(0, 0.3, 0.6, 1), y = c(1, 0.7, 0.2, 0)),
  list(x = c(0, 0.3, 0.6, 1), y = c(0.2, 0.2, 0.8, 0.8)))
at <- seq(-0.7, 1.9, by = 0.05)
cat("# n, x1, y1 ... xn, yn, x, value;", R.version.string, ", splinefun(method = monoH.FC); made by tools/make_reference_curve.R\n")
for (s in sets) {
  f <- splinefun(s$x, s$y, method = "monoH.FC")
  for (x in at)
    cat(paste(c(length(s$x), as.vector(rbind(s$x, s$y)), x, sprintf("%.17g", f(x))), collapse = ","), "\n", sep = "")
}
