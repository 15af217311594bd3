/* Kasuri: per-pixel colour rules as a library.
 *
 * SPDX-License-Identifier: LGPL-3.0-or-later
 *
 * A filter is anything that says what is done to colours: the text of a rule, a filter (.kasuri), a look
 * (.kasurilook), a LUT (.cube, .clf ...) or a colour decision list (.cc ...). It is compiled once, set to values, and
 * applied to pictures in memory as often as is wanted.
 *
 * Errors are values: what can fail returns a kasuri_status, and what is to be said of it comes through `said`, where
 * the caller wants it (NULL: not). No exception comes out of a function. Texts are UTF-8 and end with a zero; those
 * that are returned belong to the object that they were asked of, and live as long as it does and is not changed.
 *
 * Threads: a filter may be used by several threads at once as long as none of them changes it (functions that take it
 * without const). Everything else may be called at any time by anybody.
 */
#ifndef KASURI_H
#define KASURI_H

#include <stddef.h>

#ifdef __cplusplus
extern "C" {
#endif

/* Within one major version what was there stays there. */
#define KASURI_VERSION_MAJOR 0
#define KASURI_VERSION_MINOR 1
#define KASURI_VERSION_PATCH 0

#if defined(KASURI_BUILDING)
#define KASURI_API __attribute__((visibility("default")))
#else
#define KASURI_API
#endif

/* Of the library that is running: "0.1.0". */
KASURI_API const char* kasuri_version(void);

typedef enum kasuri_status {
    KASURI_OK = 0,
    KASURI_TEXT_FAULT = 1,    /* the rule has faults: see kasuri_fault_at */
    KASURI_BAD_ARGUMENT = 2,  /* what was asked makes no sense: no such name, a number out of its range, a null pointer */
    KASURI_FILE = 3,          /* a file is not there, or is not what it should be */
    KASURI_CALLED_OFF = 4,    /* by kasuri_call_off */
    KASURI_NO_MEMORY = 5,
    KASURI_NOT_POSSIBLE = 6,  /* such as a LUT of a rule that looks at places */
    KASURI_INTERNAL = 7       /* a fault of the library itself */
} kasuri_status;
/* "the rule has faults" and so on. */
KASURI_API const char* kasuri_status_text(kasuri_status status);

/* ---- What is said ---------------------------------------------------------------------------------------------- */

/* What a call had to say: an error, notes, faults of a text with their places and remedies. A function that takes
 * `kasuri_said** said` puts a new one there whatever came of it (or NULL, if there was nothing to say); it is given
 * back with kasuri_said_free. */
typedef struct kasuri_said kasuri_said;
KASURI_API void kasuri_said_free(kasuri_said* said);
/* All of it as text for people, a line each; "" of NULL. */
KASURI_API const char* kasuri_said_text(const kasuri_said* said);

/* A fault of a text. Places are bytes of the text, from 0; lines and columns (in letters) count from 1. */
typedef struct kasuri_fault {
    const char* code;     /* "K201": docs/errors.md */
    const char* severity; /* "error", "warning", "hint" */
    const char* message;
    const char* help;     /* what to do, one sentence; may be "" */
    size_t begin, end;
    int line, column;
    size_t fixes;
} kasuri_fault;
/* A change of the text that mends it: `text` in place of the bytes from `begin` to `end`. */
typedef struct kasuri_fix {
    const char* label;
    const char* text;
    size_t begin, end;
} kasuri_fix;
KASURI_API size_t kasuri_fault_count(const kasuri_said* said);
KASURI_API kasuri_status kasuri_fault_at(const kasuri_said* said, size_t index, kasuri_fault* fault);
KASURI_API kasuri_status kasuri_fix_at(const kasuri_said* said, size_t fault, size_t index, kasuri_fix* fix);

/* ---- Filters --------------------------------------------------------------------------------------------------- */

typedef struct kasuri_filter kasuri_filter;

/* The text of a rule or filter; what it uses is looked for in `folder` (NULL: nothing can be used). */
KASURI_API kasuri_status kasuri_compile(const char* text, const char* folder, kasuri_filter** filter,
                                        kasuri_said** said);
/* A file by its ending: filter, look, LUT or colour decision list. `space`: what the numbers of a LUT or list are
 * (NULL: the usual of its kind). LUTs and looks that hold some are tried by the program kasuri-tables first, which is
 * installed with the library. */
KASURI_API kasuri_status kasuri_open(const char* path, const char* space, kasuri_filter** filter, kasuri_said** said);
/* The same filter, to be set to other values; it costs next to nothing. NULL: there is no memory. */
KASURI_API kasuri_filter* kasuri_copy(const kasuri_filter* filter);
KASURI_API void kasuri_filter_free(kasuri_filter* filter);

KASURI_API const char* kasuri_title(const kasuri_filter* filter);
KASURI_API const char* kasuri_note(const kasuri_filter* filter);
/* The working space: what the numbers are that come in and go out where nothing else is said. */
KASURI_API const char* kasuri_space(const kasuri_filter* filter);
/* 32 digits, equal for filters that make the same of every picture at their values. */
KASURI_API const char* kasuri_identity(kasuri_filter* filter);
/* Whether it looks at further pictures, at where a pixel lies, or at its neighbours. */
KASURI_API int kasuri_looks_at_places(const kasuri_filter* filter);

typedef struct kasuri_parameter {
    const char* name;        /* "meet"; of a look "step2_meet" */
    const char* title;       /* for people */
    const char* description;
    const char* kind;        /* "number", "whole", "toggle" (0 or 1), "choice" (which one, from 0), "colour" (one of three) */
    double value, usual, low, high;
    size_t choices;
} kasuri_parameter;
KASURI_API size_t kasuri_parameter_count(const kasuri_filter* filter);
KASURI_API kasuri_status kasuri_parameter_at(const kasuri_filter* filter, size_t index, kasuri_parameter* parameter);
/* The name of a choice; NULL: there is none. */
KASURI_API const char* kasuri_choice_at(const kasuri_filter* filter, size_t parameter, size_t index);
KASURI_API kasuri_status kasuri_set(kasuri_filter* filter, const char* name, double value, kasuri_said** said);
/* As the language writes it: "0.25", "true", the name of a choice; of a colour by its own name "0.1, 0.2, 0.3". */
KASURI_API kasuri_status kasuri_set_text(kasuri_filter* filter, const char* name, const char* value, kasuri_said** said);
/* All values as they were meant. */
KASURI_API void kasuri_reset(kasuri_filter* filter);

KASURI_API size_t kasuri_preset_count(const kasuri_filter* filter);
KASURI_API const char* kasuri_preset_at(const kasuri_filter* filter, size_t index); /* its name; NULL: there is none */
KASURI_API kasuri_status kasuri_use_preset(kasuri_filter* filter, const char* name, kasuri_said** said);

KASURI_API size_t kasuri_space_count(void);
KASURI_API const char* kasuri_space_at(size_t index); /* NULL: there is none */
/* One of their names for each that is wanted: "acescg". 0: there is none. */
KASURI_API int kasuri_knows_space(const char* name);

/* ---- Pictures -------------------------------------------------------------------------------------------------- */

typedef enum kasuri_number {
    KASURI_FLOAT32 = 0,
    KASURI_FLOAT16 = 1,
    KASURI_UINT8 = 2,   /* 0 to 255 are 0 to 1; what is outside is cut off on the way out */
    KASURI_UINT16 = 3
} kasuri_number;

/* A picture in memory: planes of r, g, b and a, each with its own address, so that interleaved and planar, RGB and
 * BGR, top-down and bottom-up pictures are all of this form. Strides count bytes and are multiples of a number's size;
 * they may be negative. Alpha is straight; NULL for no alpha, which reads as 1 and is not written. */
typedef struct kasuri_picture {
    size_t width, height;
    kasuri_number numbers;
    void* planes[4];
    ptrdiff_t pixel_stride; /* from a pixel to the one beside it; 0: a number's size */
    ptrdiff_t row_stride;   /* from a row to the one below; 0: rows follow each other */
    const char* space;      /* what the numbers are; NULL: the filter's working space */
} kasuri_picture;

/* How a picture of `channels` interleaved numbers lies: 1 (one for r, g and b), 3 (r g b) or 4 (r g b a). */
KASURI_API kasuri_picture kasuri_interleaved(void* data, size_t width, size_t height, int channels,
                                             kasuri_number numbers);

typedef struct kasuri_source {
    const char* name;
    const char* description;
    int channels; /* 1, 3 or 4 that it reads */
    int given;    /* whether it has a picture */
} kasuri_source;
KASURI_API size_t kasuri_source_count(const kasuri_filter* filter);
KASURI_API kasuri_status kasuri_source_at(const kasuri_filter* filter, size_t index, kasuri_source* source);
/* The picture that a source reads; its numbers are copied. NULL takes it away. Only sources whose pictures are as
 * large as what the filter is applied to can be read there. */
KASURI_API kasuri_status kasuri_give_source(kasuri_filter* filter, const char* name, const kasuri_picture* picture,
                                            kasuri_said** said);

/* To call off what another thread has asked for. */
typedef struct kasuri_call kasuri_call;
KASURI_API kasuri_call* kasuri_call_new(void); /* NULL: there is no memory */
KASURI_API void kasuri_call_free(kasuri_call* call);
KASURI_API void kasuri_call_off(const kasuri_call* call);
/* Pixels that are done. */
KASURI_API size_t kasuri_call_done(const kasuri_call* call);

/* Applies the filter to `in` and puts the outcome where `out` says, which is of the same size. `out` may lie in the
 * memory of `in`, if every pixel lies where it came from; it may leave planes out (NULL). `threads`: 0 for all cores.
 * `call` may be NULL. */
KASURI_API kasuri_status kasuri_apply(const kasuri_filter* filter, const kasuri_picture* in, const kasuri_picture* out,
                                      int threads, const kasuri_call* call, kasuri_said** said);

/* Ends the threads and the helping processes that wait for the next call, which starts new ones. To be called when
 * nothing is under way; 0: somebody still works, and nothing was ended. */
KASURI_API int kasuri_rest(void);

/* ---- What is known of it --------------------------------------------------------------------------------------- */

/* 1: at its values it is out = m[0..2] . rgb + m[3], and so on by rows, for all numbers of the working space, and the
 * twelve numbers are in `matrix`. 0: it is none. */
KASURI_API int kasuri_matrix(const kasuri_filter* filter, double matrix[12]);

/* What it promises, measured: the proofs of a rule over defaults, presets and the ends of its parameters; those of a
 * look as a whole at its values. */
typedef struct kasuri_proofs kasuri_proofs;
typedef struct kasuri_proof {
    const char* title;
    const char* function;  /* "neutral"; "" of a condition that is written in the rule */
    const char* statement; /* "pass  greys stay grey  2.4e-08 <= 0.0001": a line for people */
    const char* known;     /* how it is known: "proved", "bounded", "4913 colours at 3 settings" */
    const char* at;        /* the values of the worst case: "meet = 1" */
    double figure, limit;
    int passed;
    int proved;            /* for all colours, by algebra */
    int promised;          /* 0: it is only offered, to a rule that promises nothing, and judges nothing */
    float before[4], after[4]; /* the worst case */
    size_t samples;
    int bounded;               /* for every colour of the cube or ramp it is measured on, by interval arithmetic */
} kasuri_proof;
/* *holds: 1 if everything that is promised does. */
KASURI_API kasuri_status kasuri_check(const kasuri_filter* filter, const kasuri_call* call, kasuri_proofs** proofs,
                                      int* holds, kasuri_said** said);
KASURI_API void kasuri_proofs_free(kasuri_proofs* proofs);
KASURI_API size_t kasuri_proof_count(const kasuri_proofs* proofs);
KASURI_API kasuri_status kasuri_proof_at(const kasuri_proofs* proofs, size_t index, kasuri_proof* proof);

/* ---- LUTs ------------------------------------------------------------------------------------------------------ */

typedef struct kasuri_lut_error {
    double mean, most, largest; /* of the channel that is off most: on average, 99.9 % of the colours, all of them */
    size_t samples;             /* colours on which it was measured, off the table's own points */
} kasuri_lut_error;
/* The filter as a table of size * size * size colours of three floats, red fastest, over `low` to `high`. `colours`:
 * for 3 * size^3 floats. `error`, which may be NULL: how far the table is from the filter, read tetrahedrally.
 * `in_space` and `out_space` may be NULL: the working space. */
KASURI_API kasuri_status kasuri_bake(const kasuri_filter* filter, size_t size, double low, double high,
                                     const char* in_space, const char* out_space, float* colours,
                                     kasuri_lut_error* error, kasuri_said** said);
/* The same as a file of an ending (".cube", ".clf", ".3dl", ".icc" ...), in memory: `*bytes`, to be given back with
 * kasuri_bytes_free. `error` is measured on those bytes, as another library reads them. */
KASURI_API kasuri_status kasuri_bake_file(const kasuri_filter* filter, const char* ending, size_t size, double low,
                                          double high, const char* in_space, const char* out_space, char** bytes,
                                          size_t* length, kasuri_lut_error* error, kasuri_said** said);
KASURI_API void kasuri_bytes_free(char* bytes);

/* ---- What can be measured -------------------------------------------------------------------------------------- */

/* Colour models of the language, "oklch" with the components "l", "c", "h": oklch(rgb).l in a rule. */
typedef struct kasuri_model {
    const char* name;
    const char* components[3];
    const char* doc;
} kasuri_model;
KASURI_API size_t kasuri_model_count(void);
KASURI_API kasuri_status kasuri_model_at(size_t index, kasuri_model* model);

/* Readings: a waveform, a vectorscope, the response of a rule ... with their settings, as a list for people and
 * programs. */
typedef struct kasuri_reading {
    const char* name;
    const char* title;
    const char* doc;
    int of_pictures; /* 1: it counts the pixels of a picture; 0: it looks at what a filter does to generated colours */
    size_t settings;
} kasuri_reading;
typedef struct kasuri_setting {
    const char* name;
    const char* doc;
    double usual, low, high;
    size_t choices; /* what its whole numbers from 0 on mean, where they stand for something */
} kasuri_setting;
KASURI_API size_t kasuri_reading_count(void);
KASURI_API kasuri_status kasuri_reading_at(size_t index, kasuri_reading* reading);
KASURI_API kasuri_status kasuri_setting_at(size_t reading, size_t index, kasuri_setting* setting);
KASURI_API const char* kasuri_setting_choice(size_t reading, size_t setting, size_t index);

typedef struct kasuri_measured kasuri_measured;
/* Reads `reading` off a filter and, if it is of pictures, of what the filter makes of `picture` (else NULL). `settings`
 * are texts "name=value", `count` of them; those that are left out are as usual. */
KASURI_API kasuri_status kasuri_measure(const char* reading, const kasuri_filter* filter, const kasuri_picture* picture,
                                        const char* const* settings, size_t count, kasuri_measured** measured,
                                        kasuri_said** said);
KASURI_API void kasuri_measured_free(kasuri_measured* measured);
typedef struct kasuri_figure {
    const char* name;
    const char* of; /* a channel, or "" */
    const char* unit;
    double value;
} kasuri_figure;
KASURI_API size_t kasuri_figure_count(const kasuri_measured* measured);
KASURI_API kasuri_status kasuri_figure_at(const kasuri_measured* measured, size_t index, kasuri_figure* figure);
/* What is drawn of it, as numbers by rows. kind and columns:
 *   "density"  how often things fall into the cells of the panel; the first row is the lowest
 *   "trace"    x, y of a line's points; a NaN interrupts it
 *   "arrows"   from x, y to x, y, and the colour it belongs to (linear light of BT.709: r, g, b)
 *   "spots"    x, y, r, g, b
 *   "solid"    x, y, z, the numbers that went in (3) and the colour (3)
 *   "wires"    number of the line, x, y, z */
typedef struct kasuri_layer {
    const char* kind;
    const char* name; /* "r", "709" ...; may be "" */
    size_t panel;
    size_t rows, columns;
    const double* numbers;
    const char* axes[3];     /* titles of x, y and z; "" where there is none */
    double low[3], high[3];  /* what the panel spans */
} kasuri_layer;
KASURI_API size_t kasuri_layer_count(const kasuri_measured* measured);
KASURI_API kasuri_status kasuri_layer_at(const kasuri_measured* measured, size_t index, kasuri_layer* layer);

#ifdef __cplusplus
}
#endif
#endif
