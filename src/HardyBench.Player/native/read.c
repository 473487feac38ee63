/* Reading a clip as an endless loop: time stamps, packets, and which of them are wanted. */
#include "clip.h"

#include <string.h>

#define SEEK_OVER 8 /* more packets than this are not read only to be passed over, where the file has an index */
#define LONGEST_CALL_NS (30LL * 1000000000) /* a call that reads for longer is given up */

int64_t frame_in_loop(const HbClip *clip, int64_t stamp)
{
    return av_rescale_q_rnd(stamp - clip->start, clip->stream->time_base, av_inv_q(clip->rate), AV_ROUND_NEAR_INF);
}

int64_t frame_of(const HbClip *clip, int64_t stamp)
{
    /* A loop's stamps fill less than half of the span, so those a little before its start still belong to it. */
    int64_t from_start = stamp - clip->start;
    int64_t loop = clip->span == 0 ? 0 : (from_start + clip->span / 2) / clip->span;
    return loop * clip->frame_count + frame_in_loop(clip, stamp - loop * clip->span);
}

void begin_call(HbClip *clip)
{
    clip->deadline_ns = now_ns() + LONGEST_CALL_NS;
}

int64_t hb_clip_reading(const HbClip *clip)
{
    int64_t since = clip->reading_since;
    return clip->read_ns + (since ? now_ns() - since : 0);
}

int without_index(const HbClip *clip)
{
    return strncmp(clip->format->iformat->name, "mpeg", 4) == 0;
}

int rewind_file(HbClip *clip)
{
    int index = clip->stream->index, code;
    int64_t first = clip->format->start_time;
    if (first == AV_NOPTS_VALUE)
        first = 0;
    begin_call(clip);
    if (without_index(clip) && avformat_seek_file(clip->format, -1, INT64_MIN, 0, 0, AVSEEK_FLAG_BYTE) >= 0)
        return 0;
    if (avformat_seek_file(clip->format, -1, INT64_MIN, first, first, 0) >= 0)
        return 0;
    avformat_close_input(&clip->format);
    if ((code = open_file(clip, NULL)) < 0)
        return code;
    return choose_stream(clip, index);
}

/* Packets that a whole file gives, or 0 where it does not say. */
static int64_t packets_in_file(const HbClip *clip)
{
    int64_t said = clip->stream->nb_frames, indexed = avformat_index_get_entries_count(clip->stream);
    return said < indexed ? said : indexed;
}

int end_loop(HbClip *clip)
{
    int64_t room;
    if (!clip->sought && (clip->read_in_loop == 0 || clip->read_in_loop < packets_in_file(clip)))
        return HB_TRUNCATED;
    clip->looked |= !clip->sought;
    if (clip->frame_count <= 0)
        clip->frame_count = frame_in_loop(clip, clip->last_stamp) + 1;
    if (clip->span == 0) {
        room = av_rescale_q(clip->frame_count, av_inv_q(clip->rate), clip->stream->time_base) + clip->last_stamp - clip->start + 16;
        for (clip->span = 16; clip->span < 4 * room && clip->span < INT64_MAX / 4; clip->span *= 2)
            ;
    }
    return 0;
}

int begin_loop(HbClip *clip)
{
    int code = rewind_file(clip);
    if (code < 0)
        return code;
    clip->loop++;
    clip->read_in_loop = 0;
    clip->sought = 0;
    return 0;
}

/* A loop that begins on a picture which stands alone and is the first to be shown can follow another at once. In all others pictures
 * of the loop before would be taken for those that the file lacks. */
static void look_at_loop(HbClip *clip, int64_t stamp)
{
    const AVPacket *packet = clip->packet;
    if (clip->looked || clip->sought)
        return;
    if (packet->pts == AV_NOPTS_VALUE || packet->flags & AV_PKT_FLAG_DISCARD
        || (clip->read_in_loop == 1 && !(packet->flags & AV_PKT_FLAG_KEY)) || stamp < clip->start)
        clip->open_ended = 1;
}

int64_t loop_of(const HbClip *clip, int64_t number)
{
    return clip->frame_count > 0 ? number / clip->frame_count : 0;
}

int64_t within_loop(const HbClip *clip, int64_t number)
{
    return number - loop_of(clip, number) * clip->frame_count;
}

static int64_t first_wanted(const HbClip *clip)
{
    return clip->wanted_count > 0 ? clip->wanted[0] : 0;
}

int64_t last_wanted(const HbClip *clip)
{
    return clip->wanted_count > 0 ? clip->wanted[clip->wanted_count - 1] : 0;
}

/* Whether a packet lies before what is wanted next. None does in a loop that is wanted from its start, since some that are never shown
 * come first. */
static int is_passed_over(const HbClip *clip, int64_t within)
{
    int64_t loop = loop_of(clip, first_wanted(clip)), first = within_loop(clip, first_wanted(clip));
    return clip->loop < loop || (clip->loop == loop && first > 0 && within < first);
}

/* What was wanted and is read; the last of it stays, for packets that come after it and lie before it. */
static void drop_read(HbClip *clip)
{
    while (clip->wanted_count > 1 && clip->wanted[0] < clip->next_number)
        memmove(clip->wanted, clip->wanted + 1, --clip->wanted_count * sizeof *clip->wanted);
}

int64_t moment_of(const HbClip *clip, int64_t within)
{
    return clip->start + av_rescale_q(within, av_inv_q(clip->rate), clip->stream->time_base);
}

/* Goes ahead in the file to a frame of this loop that is far off. Where that fails, what lies between is read and passed over. */
static void go_ahead(HbClip *clip)
{
    int64_t number = first_wanted(clip);
    if (number - clip->next_number <= SEEK_OVER || loop_of(clip, number) != clip->loop || clip->landing || without_index(clip)
        || packets_in_file(clip) == 0)
        return;
    begin_call(clip);
    if (av_seek_frame(clip->format, clip->stream->index, moment_of(clip, within_loop(clip, number)), AVSEEK_FLAG_BACKWARD) >= 0)
        clip->sought = 1;
}

int read_packet(HbClip *clip, int64_t *number)
{
    int rounds = 0;
    drop_read(clip);
    go_ahead(clip);
    for (;;) {
        int64_t within;
        int code;
        begin_call(clip);
        code = av_read_frame(clip->format, clip->packet);
        if (code == AVERROR_EOF) {
            if (clip->given_up)
                return AVERROR_EXIT;
            if ((code = end_loop(clip)) < 0)
                return code;
            if (clip->open_ended || !clip->looked)
                return AVERROR_EOF;
            if ((code = begin_loop(clip)) < 0)
                return code;
            if (++rounds > MOST_ROUNDS_WITHOUT_ANY && clip->loop > loop_of(clip, first_wanted(clip)))
                return AVERROR_INVALIDDATA;
            continue;
        }
        if (code < 0)
            return code;
        if (clip->packet->stream_index != clip->stream->index) {
            av_packet_unref(clip->packet);
            continue;
        }
        clip->read_in_loop++;
        if (clip->packet->flags & AV_PKT_FLAG_CORRUPT && clip->read_in_loop == packets_in_file(clip)) {
            av_packet_unref(clip->packet);
            return HB_TRUNCATED;
        }
        int64_t stamp = clip->packet->pts != AV_NOPTS_VALUE ? clip->packet->pts : clip->packet->dts;
        if (stamp != AV_NOPTS_VALUE && (stamp > INT64_MAX / 8 || stamp < -INT64_MAX / 8)) {
            av_packet_unref(clip->packet);
            return AVERROR_INVALIDDATA;
        }
        look_at_loop(clip, stamp == AV_NOPTS_VALUE ? clip->start : stamp);
        if (stamp != AV_NOPTS_VALUE && stamp > clip->last_stamp)
            clip->last_stamp = stamp;
        within = stamp == AV_NOPTS_VALUE ? within_loop(clip, first_wanted(clip)) : frame_in_loop(clip, stamp);
        if (clip->landing && within > within_loop(clip, first_wanted(clip))) {
            /* Past the frame that was wanted: then all is read from the start, and passed over up to it. */
            clip->landing = 0;
            av_packet_unref(clip->packet);
            if ((code = rewind_file(clip)) < 0)
                return code;
            continue;
        }
        clip->landing = 0;
        if (is_passed_over(clip, within)) {
            av_packet_unref(clip->packet);
            continue;
        }
        *number = stamp == AV_NOPTS_VALUE ? clip->next_number : clip->loop * clip->frame_count + within;
        if (clip->packet->pts != AV_NOPTS_VALUE)
            clip->packet->pts += clip->loop * clip->span;
        if (clip->packet->dts != AV_NOPTS_VALUE)
            clip->packet->dts += clip->loop * clip->span;
        return 0;
    }
}
