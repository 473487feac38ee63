/* Frames out of a clip, in order. */
#include "clip.h"

#include <libavutil/hwcontext.h>

#define MOST_ERRORS_IN_A_ROW 250 /* after so many packets that gave no frame a clip is not worth going on with */
#define HB_NONE_HELD 1

/* Returns what was spent since then. */
static int64_t spend(HbClip *clip, int64_t *account, int64_t began)
{
    int64_t spent = now_ns() - began;
    *account += spent;
    clip->active_ns += spent;
    return spent;
}

/* Damaged data is gone past, as long as something can be decoded now and then. */
static int count_error(HbClip *clip, int64_t frame)
{
    if (clip->errors++ == 0)
        clip->first_error = frame;
    return ++clip->errors_in_a_row < MOST_ERRORS_IN_A_ROW ? 0 : AVERROR_INVALIDDATA;
}

static int feed_decoder(HbClip *clip, HbTimes *times)
{
    int64_t began = now_ns(), number = 0;
    clip->reading_since = began;
    int code = clip->draining ? AVERROR_EOF : read_packet(clip, &number);
    clip->reading_since = 0;
    clip->read_ns += spend(clip, &times->read_ns, began);
    if (code == AVERROR_EOF) {
        clip->draining = 1;
        return avcodec_send_packet(clip->codec, NULL);
    }
    if (code < 0)
        return code;
    clip->sent_at[number & (SENT_SLOTS - 1)] = clip->active_ns;
    if (number >= clip->next_number)
        clip->next_number = number + 1;
    clip->codec->skip_frame = number < clip->skip_before ? AVDISCARD_NONREF : AVDISCARD_DEFAULT;
    began = now_ns();
    code = avcodec_send_packet(clip->codec, clip->packet);
    spend(clip, &times->decode_ns, began);
    if (code == AVERROR_INVALIDDATA)
        code = count_error(clip, number);
    av_packet_unref(clip->packet);
    return code;
}

/* The decoder has given all it held; the next loop begins with it empty. */
static int go_round(HbClip *clip)
{
    clip->draining = 0;
    avcodec_flush_buffers(clip->codec);
    return begin_loop(clip);
}

/* The number of a decoded picture; those without a time stamp follow on each other. */
static int64_t number_of(HbClip *clip, const AVFrame *frame)
{
    int64_t stamp = frame->best_effort_timestamp;
    if (stamp == AV_NOPTS_VALUE)
        return clip->highest + 1;
    if (!clip->has_start) {
        clip->has_start = 1;
        if (!clip->sought && clip->loop == 0)
            clip->start = stamp;
    }
    return frame_of(clip, stamp);
}

/* Every picture has to be like the first: the effects were set up for it. */
static int check_alike(HbClip *clip, const AVFrame *frame)
{
    if (clip->width == 0) {
        clip->width = frame->width;
        clip->height = frame->height;
        clip->pixel_format = frame->format;
    }
    return frame->width == clip->width && frame->height == clip->height && frame->format == clip->pixel_format ? 0 : HB_CHANGED;
}

/* Brings a picture that lies on a device to main memory. */
static int fetch(HbClip *clip, AVFrame *frame)
{
    AVFrame *fetched;
    int code;
    if (frame->format != clip->device_format)
        return 0;
    if (!(fetched = av_frame_alloc()))
        return AVERROR(ENOMEM);
    if ((code = av_hwframe_transfer_data(fetched, frame, 0)) >= 0 && (code = av_frame_copy_props(fetched, frame)) >= 0) {
        av_frame_unref(frame);
        av_frame_move_ref(frame, fetched);
        code = 0;
    }
    av_frame_free(&fetched);
    return code;
}

static int give_frame(HbClip *clip, HbFrame **out, int64_t *number, HbTimes *times, int only_held)
{
    AVFrame *frame = av_frame_alloc();
    int code, loops_without_any = 0;
    int64_t last_loop = loop_of(clip, last_wanted(clip)), first_loop = clip->loop > last_loop ? clip->loop : last_loop;
    *out = NULL;
    *times = (HbTimes){0};
    if (!frame)
        return AVERROR(ENOMEM);
    do {
        int64_t began = now_ns();
        if (clip->given_up) {
            code = AVERROR_EXIT;
            break;
        }
        code = avcodec_receive_frame(clip->codec, frame);
        if (code == 0 && (code = fetch(clip, frame)) < 0)
            break;
        spend(clip, &times->decode_ns, began);
        if (code == 0) {
            if ((code = check_alike(clip, frame)) < 0)
                break;
            *number = number_of(clip, frame);
            if (frame->decode_error_flags || frame->flags & AV_FRAME_FLAG_CORRUPT)
                count_error(clip, *number);
            clip->errors_in_a_row = 0;
            if (*number > clip->highest)
                clip->highest = *number;
            times->latency_ns = clip->active_ns - clip->sent_at[*number & (SENT_SLOTS - 1)];
            frame->pict_type = AV_PICTURE_TYPE_NONE;
            *out = frame;
            return 0;
        }
        if (code == AVERROR_INVALIDDATA)
            code = count_error(clip, clip->next_number - 1);
        else if (code == AVERROR(EAGAIN))
            /* A decoder that takes all packets of the whole file again and again and gives no picture never will. */
            code = clip->loop > first_loop + MOST_ROUNDS_WITHOUT_ANY ? AVERROR_INVALIDDATA : feed_decoder(clip, times);
        else if (code == AVERROR_EOF && only_held) {
            clip->draining = 0;
            avcodec_flush_buffers(clip->codec);
            av_frame_free(&frame);
            return HB_NONE_HELD;
        }
        else if (code == AVERROR_EOF && clip->draining)
            code = loops_without_any++ < MOST_ROUNDS_WITHOUT_ANY ? go_round(clip) : AVERROR_INVALIDDATA;
    } while (code >= 0);
    av_frame_free(&frame);
    return code;
}

int hb_clip_next(HbClip *clip, HbFrame **out, int64_t *number, int64_t *next_number, HbTimes *times)
{
    int code = give_frame(clip, out, number, times, 0);
    *next_number = clip->next_number;
    return code;
}

int hb_clip_next_held(HbClip *clip, HbFrame **out, int64_t *number, HbTimes *times)
{
    *out = NULL;
    /* At the end of a loop it is being emptied already, and goes on with the next. */
    if (clip->draining && !clip->emptying)
        return HB_NONE_HELD;
    if (!clip->draining) {
        int code = avcodec_send_packet(clip->codec, NULL);
        if (code < 0 && code != AVERROR_EOF)
            return code;
    }
    clip->draining = clip->emptying = 1;
    int code = give_frame(clip, out, number, times, 1);
    if (code != 0)
        clip->emptying = 0;
    return code;
}
