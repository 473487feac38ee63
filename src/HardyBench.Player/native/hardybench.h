/* A thin layer over libavformat, libavcodec and libavfilter: opaque handles, plain numbers, no policy.
 * Every function returns 0 or a positive value on success and a negative FFmpeg error code otherwise;
 * hb_error_text turns a code into words. A handle is used by one thread at a time. */
#ifndef HARDYBENCH_H
#define HARDYBENCH_H

#include <stdint.h>

#define HB_EXPORT __attribute__((visibility("default")))

/* Our own codes, outside FFmpeg's range. */
#define HB_END       1      /* hb_graph_take: no picture yet, give it the next one */
#define HB_NO_VIDEO  (-900001)
#define HB_TRUNCATED (-900002)
#define HB_CHANGED   (-900003) /* a picture is of another raster or format than those before it */
#define HB_OTHER_STREAM (-900004) /* the stream that was chosen is not there, or holds no pictures */

#define HB_MOST_INPUTS 256 /* of a graph */

typedef struct HbClip HbClip;
typedef struct HbGraph HbGraph;
typedef struct AVFrame HbFrame;

/* How a clip is to be opened. What is not known is 0, the stream -1. */
typedef struct HbOpening {
    int32_t stream;         /* the container's number of it; -1 for the best */
    int32_t rate_numerator, rate_denominator; /* by which time stamps become frame numbers; 0 for what the container says */
    int32_t threads;        /* for decoding */
    int32_t one_by_one;     /* no frame waits in the decoder for those after it, as a hand that asks for single frames wants */
    int32_t has_start;      /* whether start is known */
    int32_t held_back;      /* frames that decoding holds back to put them in order; -1 when it is not known */
    int64_t start;          /* time stamp of frame 0, in the stream's own units */
    int64_t frame_count;    /* slots of one loop; 0 when it is not known */
} HbOpening;

typedef struct HbClipInfo {
    int32_t width, height;
    int32_t rate_numerator, rate_denominator;
    int32_t pixel_format;   /* as libavutil numbers it; only handed back to hb_graph_open */
    int32_t key_count;      /* entries that hb_clip_keys would give */
    int32_t frames_at_once; /* frames whose data the decoder takes before it gives the first */
    int64_t frame_count;
} HbClipInfo;

typedef struct HbInput {
    int32_t width, height, pixel_format;
    int32_t rate_numerator, rate_denominator;
} HbInput;

/* Nanoseconds. */
typedef struct HbTimes {
    int64_t read_ns;    /* spent reading since the call before */
    int64_t decode_ns;  /* spent in the decoder since the call before */
    int64_t latency_ns; /* from sending the frame's data to having the frame, times between calls left out */
} HbTimes;

HB_EXPORT const char *hb_library_versions(void);
HB_EXPORT void hb_error_text(int code, char *text, int size);

/* Opens a video stream of a file. Nothing but the file is reached, and nothing but a container that holds pictures itself is opened.
 * device names where to decode, NULL the processor; where the device does not do it the processor does, and hb_clip_refusal says why. */
HB_EXPORT int hb_clip_open(const char *path, const HbOpening *how, const char *device, HbClip **clip, HbClipInfo *info);
/* Lets a call that is under way in another thread end soon, with an error; all calls after it end so too. */
HB_EXPORT void hb_clip_give_up(HbClip *clip);
/* Nanoseconds spent reading since the clip was opened, the read under way in another thread with them. */
HB_EXPORT int64_t hb_clip_reading(const HbClip *clip);
/* Why the device asked for does not decode; an empty text when it does, or none was asked for. It may still refuse on the first
 * frame. */
HB_EXPORT const char *hb_clip_refusal(const HbClip *clip);
/* How many packets or frames the decoder called damaged so far; first becomes the frame of the first of them. */
HB_EXPORT int64_t hb_clip_errors(const HbClip *clip, int64_t *first);
/* Numbers of the frames that stand alone, ascending; returns how many were written. */
HB_EXPORT int hb_clip_keys(HbClip *clip, int64_t *frames, int capacity);
/* Next decoded frame, in the order of showing. At the end of the file reading goes on at its start, and frame numbers go on rising.
 * A frame of another raster or format than those before it is HB_CHANGED. Numbers follow the time stamps: where a file has no picture
 * for a slot, a number is missing.
 * next_number is the one after the highest whose data the decoder has; those between are on their way. */
HB_EXPORT int hb_clip_next(HbClip *clip, HbFrame **frame, int64_t *number, int64_t *next_number, HbTimes *times);
/* Whether the decoder takes a later frame that stands alone behind those it works on. Others have to be emptied first. */
HB_EXPORT int hb_clip_goes_on(const HbClip *clip);
/* The next of the frames that the decoder already has the data of, reading nothing more. 1 when there is none left: then the decoder is
 * empty, and has to be sent a frame that stands alone next. */
HB_EXPORT int hb_clip_next_held(HbClip *clip, HbFrame **frame, int64_t *number, HbTimes *times);
/* From now on leaves out the decoding of frames that nothing refers to where they are numbered below this; 0 decodes all. */
HB_EXPORT void hb_clip_skip_unreferenced(HbClip *clip, int64_t before);
/* In footage whose frames stand alone: goes on at a later frame, once those that were wanted before it are read. Of more than 64 that
 * were not read yet the last takes the place of the one before it. */
HB_EXPORT void hb_clip_want(HbClip *clip, int64_t number);
/* Gives up what the decoder holds and goes on at a later frame that stands alone. */
HB_EXPORT void hb_clip_leap(HbClip *clip, int64_t number);
/* Goes on at or before a frame that stands alone, backwards or forwards. */
HB_EXPORT int hb_clip_seek(HbClip *clip, int64_t number);
HB_EXPORT void hb_clip_close(HbClip *clip);

/* Whether a device of that name can be opened: 0, or why not as an error code. */
HB_EXPORT int hb_device_try(const char *device);
/* The name of the index-th kind of device that the libraries know, or NULL past the last. */
HB_EXPORT const char *hb_device_name(int index);

/* Whether the libraries have a filter of that name. */
HB_EXPORT int hb_has_filter(const char *name);
/* Builds a filter graph whose inputs are labelled in0, in1 … and whose output is labelled out. device is what filters
 * that need one run on; NULL for none. */
HB_EXPORT int hb_graph_open(const char *description, int inputs, const HbInput *input, int threads, const char *device, HbGraph **graph);
/* Feeds one frame to each input at a position in time; the frames stay the caller's. HB_CHANGED, and nothing is fed, when one is not
 * of the raster and format that its input was set up for. */
HB_EXPORT int hb_graph_give(HbGraph *graph, HbFrame *const *frames, int64_t position);
/* Takes a treated frame that is ready, or HB_END when the graph wants another first. */
HB_EXPORT int hb_graph_take(HbGraph *graph, HbFrame **treated);
HB_EXPORT void hb_graph_close(HbGraph *graph);

HB_EXPORT void hb_frame_free(HbFrame *frame);
/* Its raster, its format as libavutil numbers it, and its moment in units of the graph that gave it. */
HB_EXPORT void hb_frame_about(const HbFrame *frame, int32_t *width, int32_t *height, int32_t *pixel_format, int64_t *moment);
/* A second reference to the same picture, to be let go by itself; NULL without memory. */
HB_EXPORT HbFrame *hb_frame_another(const HbFrame *frame);
/* Copies the planes without padding; with bytes = NULL tells the size only. */
HB_EXPORT int hb_frame_copy(const HbFrame *frame, uint8_t *bytes, int size);
/* Encodes a JPEG of the given width into bytes; returns its size. */
HB_EXPORT int hb_frame_jpeg(const HbFrame *frame, int width, uint8_t *bytes, int size);

/* Drops a file's pages from the system's cache (0) or reads it through (1). */
HB_EXPORT int hb_cache(const char *path, int warm);
/* Share of a file that lies in the system's cache, in millionths, or an error code. */
HB_EXPORT int hb_cached(const char *path);
/* Lets the calling thread run before others, where the system allows it: 0, or -1. */
HB_EXPORT int hb_raise_priority(void);

#endif
