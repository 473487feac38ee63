/* Effects on frames, as a graph of filters. */
#include "hardybench.h"

#include <stdio.h>
#include <string.h>

#include <libavfilter/avfilter.h>
#include <libavfilter/buffersink.h>
#include <libavfilter/buffersrc.h>
#include <libavutil/hwcontext.h>
#include <libavutil/opt.h>
#include <libavutil/pixdesc.h>

struct HbGraph {
    AVFilterGraph *graph;
    AVFilterContext **sources;
    AVFilterContext *sink;
    HbInput *taken; /* what each input was set up for */
    int inputs;
};

static int add_source(HbGraph *g, int i, const HbInput *in, AVFilterInOut **outputs)
{
    char name[16], arguments[160];
    AVFilterInOut *end;
    int code;
    snprintf(name, sizeof name, "in%d", i);
    snprintf(arguments, sizeof arguments, "video_size=%dx%d:pix_fmt=%d:time_base=%d/%d:frame_rate=%d/%d:pixel_aspect=1/1",
             in->width, in->height, in->pixel_format, in->rate_denominator, in->rate_numerator,
             in->rate_numerator, in->rate_denominator);
    if ((code = avfilter_graph_create_filter(&g->sources[i], avfilter_get_by_name("buffer"), name, arguments, NULL, g->graph)) < 0)
        return code;
    if (!(end = avfilter_inout_alloc()))
        return AVERROR(ENOMEM);
    end->name = av_strdup(name);
    end->filter_ctx = g->sources[i];
    end->next = *outputs;
    *outputs = end;
    return 0;
}

int hb_has_filter(const char *name)
{
    return avfilter_get_by_name(name) != NULL;
}

/* Only the filters between hwupload and hwdownload use it; the others do not mind. */
static int give_device(AVFilterGraph *graph, const char *device)
{
    AVBufferRef *context = NULL;
    enum AVHWDeviceType type = av_hwdevice_find_type_by_name(device);
    int code = type == AV_HWDEVICE_TYPE_NONE ? AVERROR(ENODEV) : av_hwdevice_ctx_create(&context, type, NULL, NULL, 0);
    for (unsigned i = 0; code >= 0 && i < graph->nb_filters; i++)
        if (!(graph->filters[i]->hw_device_ctx = av_buffer_ref(context)))
            code = AVERROR(ENOMEM);
    av_buffer_unref(&context);
    return code;
}

int hb_graph_open(const char *description, int inputs, const HbInput *input, int threads, const char *device, HbGraph **out)
{
    HbGraph *g = av_mallocz(sizeof *g);
    AVFilterInOut *sources = NULL, *sink = NULL;
    int code = AVERROR(ENOMEM);
    *out = NULL;
    if (inputs < 1 || inputs > HB_MOST_INPUTS) {
        code = AVERROR(EINVAL);
        goto failed;
    }
    if (!g || !(g->graph = avfilter_graph_alloc()) || !(g->sources = av_calloc(inputs, sizeof *g->sources))
        || !(g->taken = av_memdup(input, inputs * sizeof *input)))
        goto failed;
    g->inputs = inputs;
    g->graph->nb_threads = threads;
    g->graph->scale_sws_opts = av_strdup("flags=bicubic");
    for (int i = 0; i < inputs; i++)
        if ((code = add_source(g, i, &input[i], &sources)) < 0)
            goto failed;
    if ((code = avfilter_graph_create_filter(&g->sink, avfilter_get_by_name("buffersink"), "out", NULL, NULL, g->graph)) < 0)
        goto failed;
    if (!(sink = avfilter_inout_alloc())) {
        code = AVERROR(ENOMEM);
        goto failed;
    }
    sink->name = av_strdup("out");
    sink->filter_ctx = g->sink;
    if ((code = avfilter_graph_parse_ptr(g->graph, description, &sink, &sources, NULL)) < 0
        || (device && (code = give_device(g->graph, device)) < 0)
        || (code = avfilter_graph_config(g->graph, NULL)) < 0)
        goto failed;
    avfilter_inout_free(&sources);
    avfilter_inout_free(&sink);
    *out = g;
    return 0;
failed:
    avfilter_inout_free(&sources);
    avfilter_inout_free(&sink);
    hb_graph_close(g);
    return code;
}

int hb_graph_give(HbGraph *g, HbFrame *const *frames, int64_t position)
{
    int code = 0;
    /* Filters hold on to the raster and format that they were set up for, and would read past the end of any other. */
    for (int i = 0; i < g->inputs; i++)
        if (frames[i]->width != g->taken[i].width || frames[i]->height != g->taken[i].height || frames[i]->format != g->taken[i].pixel_format)
            return HB_CHANGED;
    for (int i = 0; code >= 0 && i < g->inputs; i++) {
        frames[i]->pts = position;
        code = av_buffersrc_add_frame_flags(g->sources[i], frames[i], AV_BUFFERSRC_FLAG_KEEP_REF);
    }
    return code;
}

int hb_graph_take(HbGraph *g, HbFrame **treated)
{
    AVFrame *frame = av_frame_alloc();
    int code;
    *treated = NULL;
    if (!frame)
        return AVERROR(ENOMEM);
    code = av_buffersink_get_frame(g->sink, frame);
    if (code == 0) {
        *treated = frame;
        return 0;
    }
    av_frame_free(&frame);
    return code == AVERROR(EAGAIN) ? HB_END : code;
}

void hb_graph_close(HbGraph *g)
{
    if (!g)
        return;
    avfilter_graph_free(&g->graph);
    av_freep(&g->sources);
    av_freep(&g->taken);
    av_free(g);
}
